<script setup lang="ts">
import { nextTick, onMounted, ref, useTemplateRef } from 'vue'

import { api } from '../api/client'
import { me, takeMe, told, type Me } from '../api/session'
import PlainField from './PlainField.vue'
import { useForm } from './useForm'

/** Name and password, a code where one is asked, or a passkey. */
const emit = defineEmits<{ done: [] }>()
const form = useTemplateRef('form')
const name = ref('')
const password = ref('')
const code = ref('')
const asksCode = ref(false)
const { busy, problem, send } = useForm()
onMounted(() => form.value?.querySelector('input')?.focus())

function done(now: Me) {
  takeMe(now)
  told()
  emit('done')
}

async function signIn() {
  const answer = await send(() =>
    api.POST('/api/sign-in', {
      body: { name: name.value, password: password.value, code: asksCode.value ? code.value : undefined },
    }),
  )
  if (answer?.data) return done(answer.data)
  if (answer?.error?.type !== 'wakefield:code') return
  asksCode.value = true
  await nextTick()
  form.value?.querySelector<HTMLInputElement>('[autocomplete=one-time-code]')?.focus()
}

async function byPasskey() {
  const begun = await send(() => api.POST('/api/sign-in/passkey/begin'))
  if (!begun?.data) return
  const { startAuthentication } = await import('@simplewebauthn/browser')
  let answer: string
  try {
    const { publicKey } = begun.data as { publicKey: Parameters<typeof startAuthentication>[0]['optionsJSON'] }
    answer = JSON.stringify(await startAuthentication({ optionsJSON: publicKey }))
  } catch {
    problem.value = 'No passkey was shown.'
    return
  }
  const signed = await send(() => api.POST('/api/sign-in/passkey', { body: { answer } }))
  if (signed?.data) done(signed.data)
}

function take(sample: { name: string; password: string }) {
  name.value = sample.name
  password.value = sample.password
}
</script>

<template>
  <form ref="form" class="sign-in" data-test="sign-in" @submit.prevent="signIn">
    <PlainField v-model="name" label="Name" autocomplete="username webauthn" />
    <PlainField v-model="password" label="Password" type="password" autocomplete="current-password" />
    <PlainField
      v-if="asksCode"
      v-model="code"
      label="Code"
      autocomplete="one-time-code"
      code
      hint="That your app shows now, or one of those for when it is lost."
    />
    <p v-if="problem" class="short" role="alert" data-test="sign-in-problem">{{ problem }}</p>
    <p class="acts">
      <button type="submit" class="act" :disabled="busy" data-test="sign-in-send">Sign in</button>
      <button type="button" class="act quiet" :disabled="busy" data-test="by-passkey" @click="byPasskey">
        With a passkey
      </button>
    </p>
    <div v-if="me?.sample?.length" class="soft samples">
      Sample people:
      <button
        v-for="s in me.sample"
        :key="s.name"
        type="button"
        class="plain-button"
        :data-sample="s.name"
        @click="take(s)"
      >
        <b>{{ s.name }}</b>, {{ s.what }}
      </button>
    </div>
  </form>
</template>

<style scoped>
.sign-in {
  display: grid;
  gap: 8px;
}

.acts {
  display: flex;
  gap: 8px;
  margin: 4px 0 0;
}

p {
  margin: 0;
}

.samples {
  display: grid;
  gap: 4px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
</style>
