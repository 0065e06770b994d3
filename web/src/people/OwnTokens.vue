<script setup lang="ts">
import { ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import { notice } from '../ui/notice'
import OnceShown from './OnceShown.vue'
import PlainField from '../forms/PlainField.vue'
import { useForm } from '../forms/useForm'
import { when } from './when'

/** Tokens with which programs read and change what one may oneself. */
const { data: tokens, again } = useAnswer(
  () => '',
  () => api.GET('/api/tokens'),
  { keep: true },
)
const { data: sites } = useAnswer(
  () => '',
  () => api.GET('/api/sites'),
  { keep: true },
)
const making = ref(false)
const name = ref('')
const writes = ref(false)
const only = ref<string[]>([])
const days = ref('90')
const made = ref('')
const { busy, problem, problems, send } = useForm()

async function make() {
  const told = await send(() =>
    api.POST('/api/tokens', {
      body: { name: name.value, writes: writes.value, sites: only.value, days: Number(days.value) },
    }),
  )
  if (!told?.data) return
  made.value = told.data.secret
  making.value = false
  name.value = ''
  void again()
}
async function end(token: string) {
  const told = await ask(api.DELETE('/api/tokens/{token}', { params: { path: { token } } }))
  if (told.problem) notice(told.problem, { error: true })
  void again()
}
const nameOf = (site: string) => sites.value?.find((s) => s.id === site)?.name ?? site
</script>

<template>
  <section v-if="tokens" aria-label="Tokens for programs" data-test="tokens">
    <h2>Tokens for programs</h2>
    <p v-if="!tokens.length && !making" class="soft">
      A program shows a token in place of a password: <code>wakefield push</code> and <code>pull</code> do.
    </p>
    <table v-if="tokens.length">
      <thead>
        <tr>
          <th>For</th>
          <th>May</th>
          <th>Sites</th>
          <th>Used last</th>
          <th>Until</th>
          <th><span class="visually-hidden">Act</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="t in tokens" :key="t.id">
          <td>{{ t.name }}</td>
          <td>{{ t.writes ? 'read and change' : 'read' }}</td>
          <td>{{ t.sites.length ? t.sites.map(nameOf).join(', ') : 'all that you may see' }}</td>
          <td>{{ when(t.used) }}</td>
          <td>{{ when(t.expires) }}</td>
          <td>
            <button type="button" class="plain-button link remove" :aria-label="`End ${t.name}`" @click="end(t.id)">
              End
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <OnceShown v-if="made" what="Keep this token where the program finds it." :text="made" />
    <p v-if="!making">
      <button type="button" class="act quiet" data-test="new-token" @click="((making = true), (made = ''))">
        New token
      </button>
    </p>
    <form v-else class="sheet" data-test="token-form" @submit.prevent="make">
      <PlainField v-model="name" label="For" :maxlength="60" :problem="problems.name" hint="Which program uses it." />
      <label class="tick"><input v-model="writes" type="checkbox" /> May also change what you may change</label>
      <fieldset>
        <legend>Sites (none ticked: all that you may see)</legend>
        <label v-for="s in sites" :key="s.id" class="tick"
          ><input v-model="only" type="checkbox" :value="s.id" /> {{ s.name }}</label
        >
      </fieldset>
      <PlainField v-model="days" label="Good for days" type="number" :problem="problems.days" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Make it</button>
    </form>
  </section>
</template>

<style scoped>
form {
  display: grid;
  gap: 8px;
  margin: 8px 0;
}

form .act {
  justify-self: start;
}

fieldset {
  border: 1px solid var(--rule);
  border-radius: 4px;
  max-height: 180px;
  overflow: auto;
}

.tick {
  display: block;
}
</style>
