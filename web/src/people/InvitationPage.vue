<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { takeMe, told } from '../api/session'
import PeopleFrame from './PeopleFrame.vue'
import PlainField from '../forms/PlainField.vue'
import { useForm } from '../forms/useForm'

/** What a link is good for, once: to make an account, or to set a password. */
const router = useRouter()
const route = useRoute()
const secret = computed(() => route.hash.slice(1)) // another link may be opened in the same tab
const name = ref('')
const password = ref('')
const { busy, problem, problems, send } = useForm()
const { data: invitation, failure } = useAnswer(
  () => secret.value,
  () =>
    api.POST('/api/invitation', { body: { secret: secret.value } }).then((answer) => {
      if (answer.data) name.value = answer.data.name
      return answer
    }),
)

async function accept() {
  const answer = await send(() =>
    api.POST('/api/invitation/accept', { body: { secret: secret.value, name: name.value, password: password.value } }),
  )
  if (!answer?.data) return
  takeMe(answer.data)
  told()
  await router.replace('/')
}
</script>

<template>
  <PeopleFrame :title="invitation?.kind === 'reset' ? 'A new password' : 'Your account'">
    <p v-if="failure" class="short" role="alert" data-test="invitation-failure">
      {{ failure }} Ask a planner of your company for another link.
    </p>
    <form v-else-if="invitation" data-test="invitation" @submit.prevent="accept">
      <p v-if="invitation.kind === 'first'">
        Nobody has an account on this server yet. Make yours: you will be the planner who invites the others.
      </p>
      <p v-else-if="invitation.kind === 'invited'">{{ invitation.madeBy }} has invited you. Make your account.</p>
      <p v-else>
        Set a new password for <b>{{ invitation.name }}</b>. You are signed out everywhere then, and set up one-time
        codes anew if you had them.
      </p>
      <PlainField
        v-if="invitation.kind !== 'reset'"
        v-model="name"
        label="Your name"
        autocomplete="username"
        :maxlength="60"
        :problem="problems.name"
        hint="As the history of plans shows it; you sign in with it."
      />
      <PlainField
        v-model="password"
        label="Password"
        type="password"
        autocomplete="new-password"
        :problem="problems.password"
        hint="12 characters at least; a few words in a row are good."
      />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy" data-test="accept">
        {{ invitation.kind === 'reset' ? 'Set it' : 'Make it' }}
      </button>
    </form>
  </PeopleFrame>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  max-width: 480px;
}

.act {
  justify-self: start;
}

p {
  margin: 8px 0;
}
</style>
