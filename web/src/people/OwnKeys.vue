<script setup lang="ts">
import { ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import { loadMe } from '../api/me'
import { count } from '../ui/figures'
import { notice } from '../ui/notice'
import CurrentPassword from './CurrentPassword.vue'
import OnceShown from './OnceShown.vue'
import PlainField from '../forms/PlainField.vue'
import { useForm } from '../forms/useForm'
import { when } from './when'

/** How one signs in: password, one-time codes, passkeys. */
const { data: keys, again } = useAnswer(
  () => '',
  () => api.GET('/api/me/passkeys'),
  { keep: true },
)
const doing = ref<'' | 'password' | 'code' | 'passkey' | 'no-code' | 'no-password'>('')
const current = ref('')
const next = ref('')
const name = ref('')
const code = ref('')
const fresh = ref<{ secret: string; url: string; image: string }>()
const recovery = ref<string[]>([])
const { busy, problem, problems, send } = useForm()

function begin(what: typeof doing.value) {
  doing.value = doing.value === what ? '' : what
  for (const field of [current, next, name, code]) field.value = ''
  problems.value = {}
  problem.value = ''
  recovery.value = []
  if (what === 'code') void ask(api.POST('/api/me/code/new')).then((t) => (fresh.value = t.data))
}
function done(said: string) {
  doing.value = ''
  notice(said)
  void again()
  void loadMe()
}
async function changePassword() {
  const body = { current: current.value, password: next.value }
  if ((await send(() => api.POST('/api/me/password', { body })))?.status === 204)
    done('The password was changed. Everywhere else you are signed out.')
}
async function noPassword() {
  if ((await send(() => api.POST('/api/me/password/remove', { body: { current: current.value } })))?.status === 204)
    done('You sign in by passkeys alone now. Everywhere else you are signed out.')
}
async function useCode() {
  const told = await send(() => api.POST('/api/me/code', { body: { current: current.value, code: code.value } }))
  if (!told?.data) return
  recovery.value = told.data.codes
  done('A code is asked beside your password from now on.')
}
async function noCode() {
  if ((await send(() => api.POST('/api/me/code/remove', { body: { current: current.value } })))?.status === 204)
    done('No code is asked any more.')
}
async function addPasskey() {
  const begun = await send(() => api.POST('/api/me/passkeys/new', { body: { current: current.value } }))
  if (!begun?.data) return
  const { startRegistration } = await import('@simplewebauthn/browser')
  let answer: string
  try {
    const { publicKey } = begun.data as { publicKey: Parameters<typeof startRegistration>[0]['optionsJSON'] }
    answer = JSON.stringify(await startRegistration({ optionsJSON: publicKey }))
  } catch {
    problem.value = 'No passkey was made.'
    return
  }
  if ((await send(() => api.POST('/api/me/passkeys', { body: { name: name.value, answer } })))?.status === 204)
    done('The passkey was added.')
}
async function removePasskey(key: string) {
  const told = await ask(api.DELETE('/api/me/passkeys/{key}', { params: { path: { key } } }))
  if (told.problem) notice(told.problem, { error: true })
  void again()
}
</script>

<template>
  <section v-if="keys" aria-label="How you sign in" data-test="keys">
    <h2>How you sign in</h2>
    <table>
      <tbody>
        <tr>
          <td>Password</td>
          <td>{{ keys.password ? 'set' : 'none' }}</td>
          <td>
            <button type="button" class="plain-button link" data-test="change-password" @click="begin('password')">
              {{ keys.password ? 'Change' : 'Set' }}
            </button>
            <button
              v-if="keys.password && keys.passkeys.length"
              type="button"
              class="plain-button link remove"
              data-test="no-password"
              @click="begin('no-password')"
            >
              Remove
            </button>
          </td>
        </tr>
        <tr>
          <td>Code beside it</td>
          <td>
            {{ keys.code ? `asked; ${count(keys.recovery, 'code')} left for when the device is lost` : 'not asked' }}
          </td>
          <td>
            <button
              type="button"
              class="plain-button link"
              data-test="set-up-code"
              @click="begin(keys.code ? 'no-code' : 'code')"
            >
              {{ keys.code ? 'Remove' : 'Set up' }}
            </button>
          </td>
        </tr>
        <tr v-for="k in keys.passkeys" :key="k.id">
          <td>Passkey</td>
          <td>{{ k.name }}, since {{ when(k.made) }}, used {{ when(k.used) }}</td>
          <td>
            <button type="button" class="plain-button link remove" @click="removePasskey(k.id)">Remove</button>
          </td>
        </tr>
        <tr>
          <td>Passkey</td>
          <td class="soft">of this device, or of a phone or a stick</td>
          <td>
            <button type="button" class="plain-button link" data-test="add-passkey" @click="begin('passkey')">
              Add
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form v-if="doing === 'password'" class="sheet" data-test="password-form" @submit.prevent="changePassword">
      <CurrentPassword v-if="keys.password" v-model="current" :problem="problems.current" />
      <PlainField
        v-model="next"
        label="New password"
        type="password"
        autocomplete="new-password"
        :problem="problems.password"
        hint="12 characters at least; a few words in a row are good."
      />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Change</button>
    </form>
    <form v-if="doing === 'code' && fresh" class="sheet" data-test="code-form" @submit.prevent="useCode">
      <p>
        Scan this with an app that makes one-time codes, or type the secret into it. Then type the code that it shows.
      </p>
      <img :src="fresh.image" alt="The secret as a picture to scan" width="180" height="180" />
      <p>
        <code data-test="code-secret">{{ fresh.secret }}</code>
      </p>
      <PlainField v-model="code" label="Code" autocomplete="one-time-code" code :problem="problems.code" />
      <CurrentPassword v-model="current" :problem="problems.current" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Ask for codes</button>
    </form>
    <form v-if="doing === 'no-password'" class="sheet" data-test="no-password-form" @submit.prevent="noPassword">
      <p>
        Without a password your passkeys are the only way in. Should you lose them, a planner of your company gives you
        a link.
      </p>
      <CurrentPassword v-model="current" :problem="problems.current" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Remove it</button>
    </form>
    <form v-if="doing === 'no-code'" class="sheet" @submit.prevent="noCode">
      <CurrentPassword v-model="current" :problem="problems.current" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Ask for no codes</button>
    </form>
    <form v-if="doing === 'passkey'" class="sheet" data-test="passkey-form" @submit.prevent="addPasskey">
      <PlainField v-model="name" label="Name" :maxlength="60" hint="By which you know it again, such as Phone." />
      <CurrentPassword v-if="keys.password" v-model="current" :problem="problems.current" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Add a passkey</button>
    </form>
    <OnceShown
      v-if="recovery.length"
      what="Keep these codes apart from the device that makes the others: each signs you in once when it is lost."
      :text="recovery.join('\n')"
    />
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

p {
  margin: 0;
}
</style>
