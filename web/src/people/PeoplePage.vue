<script setup lang="ts">
import { ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { components } from '../api/schema'
import { count } from '../ui/figures'
import { notice } from '../ui/notice'
import OnceShown from './OnceShown.vue'
import PeopleFrame from './PeopleFrame.vue'
import PlainField from '../forms/PlainField.vue'
import RolesField from './RolesField.vue'
import { useForm } from '../forms/useForm'

type Person = components['schemas']['PersonLine']

/** Who has an account, and who may do what where. */
const { data, failure, again } = useAnswer(
  () => '',
  () => api.GET('/api/people'),
  { keep: true },
)
const { data: sites } = useAnswer(
  () => '',
  () => api.GET('/api/sites'),
  { keep: true },
)
const name = ref('')
const planner = ref(false)
const roles = ref<components['schemas']['Role'][]>([])
const inviting = ref(false)
const changing = ref('') // whose roles are being changed
const leaving = ref('') // who is asked about before they are removed
const link = ref('')
const said = ref('')
const { busy, problem, send } = useForm()

const address = (secret: string) => `${location.origin}/invitation#${secret}`

function beginInviting() {
  inviting.value = true
  changing.value = link.value = name.value = ''
  planner.value = false
  roles.value = []
}
function beginChanging(p: Person) {
  inviting.value = false
  changing.value = changing.value === p.id ? '' : p.id
  planner.value = p.planner
  roles.value = [...p.roles]
}
async function invite() {
  const body = { name: name.value, planner: planner.value, roles: planner.value ? [] : roles.value }
  const told = await send(() => api.POST('/api/people/invitations', { body }))
  if (!told?.data) return
  link.value = address(told.data.secret)
  said.value = 'Give this link to whom you invite; it is good once, for a week.'
  inviting.value = false
}
async function setRoles(person: string) {
  const body = { planner: planner.value, roles: planner.value ? [] : roles.value }
  const told = await send(() => api.PUT('/api/people/{person}/roles', { params: { path: { person } }, body }))
  if (told?.status !== 204) return
  changing.value = ''
  void again()
}
async function reset(p: Person) {
  const told = await ask(api.POST('/api/people/{person}/reset', { params: { path: { person: p.id } } }))
  if (!told.data) return notice(told.problem, { error: true })
  link.value = address(told.data.secret)
  said.value = `Give this link to ${p.name}, who sets a new password by it; it is good once, for a day.`
}
async function signOut(p: Person) {
  const told = await ask(api.POST('/api/people/{person}/sign-out', { params: { path: { person: p.id } } }))
  notice(told.problem || `${p.name} is signed out everywhere.`, { error: !!told.problem })
  void again()
}
async function remove(p: Person) {
  const told = await ask(api.DELETE('/api/people/{person}', { params: { path: { person: p.id } } }))
  leaving.value = ''
  notice(told.problem || `${p.name} has no account any more.`, { error: !!told.problem })
  void again()
}
async function askTwo(yes: boolean) {
  const told = await ask(api.PUT('/api/company/second', { body: { asksTwo: yes } }))
  if (told.problem) notice(told.problem, { error: true })
  void again()
}
const siteName = (id: string) => sites.value?.find((s) => s.id === id)?.name ?? id
const words = { planner: 'plans', fitter: 'fits', reader: 'reads' }
const mayDo = (p: Person) =>
  p.planner
    ? 'plans all sites, decides about people'
    : p.roles.map((r) => `${words[r.role]} ${siteName(r.site)}`).join(', ') || 'nothing yet'
const proof = (p: Person) =>
  [p.code ? 'password and code' : 'password', p.passkeys ? count(p.passkeys, 'passkey') : ''].filter(Boolean).join(', ')
</script>

<template>
  <PeopleFrame title="People" wide>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <template v-if="data">
      <table data-test="people">
        <thead>
          <tr>
            <th>Name</th>
            <th>May</th>
            <th>Signs in with</th>
            <th>Signed in at</th>
            <th><span class="visually-hidden">Acts</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="p in data.people" :key="p.id">
            <tr :data-person="p.name">
              <td>
                <b>{{ p.name }}</b><span v-if="p.me" class="soft"> (you)</span>
              </td>
              <td>{{ mayDo(p) }}</td>
              <td>{{ proof(p) }}</td>
              <td>{{ p.seats ? count(p.seats, 'place') : 'nowhere' }}</td>
              <td>
                <div class="acts">
                  <button type="button" class="plain-button link" data-test="change-roles" @click="beginChanging(p)">
                    Roles<span class="visually-hidden"> of {{ p.name }}</span>
                  </button>
                  <template v-if="!p.me">
                    <button type="button" class="plain-button link" data-test="reset" @click="reset(p)">
                      New password<span class="visually-hidden"> for {{ p.name }}</span>
                    </button>
                    <button v-if="p.seats" type="button" class="plain-button link" @click="signOut(p)">
                      Sign out<span class="visually-hidden"> {{ p.name }}</span>
                    </button>
                    <button
                      type="button"
                      class="plain-button link remove"
                      data-test="remove-person"
                      @click="leaving = leaving === p.id ? '' : p.id"
                    >
                      Remove<span class="visually-hidden"> {{ p.name }}</span>
                    </button>
                  </template>
                </div>
              </td>
            </tr>
            <tr v-if="changing === p.id">
              <td colspan="5">
                <form data-test="roles-form" @submit.prevent="setRoles(p.id)">
                  <RolesField v-model:planner="planner" v-model:roles="roles" :sites="sites ?? []" />
                  <p v-if="problem" class="short" role="alert">{{ problem }}</p>
                  <button type="submit" class="act" :disabled="busy">Apply</button>
                </form>
              </td>
            </tr>
            <tr v-if="leaving === p.id">
              <td colspan="5" role="alert">
                {{ p.name }} is signed out at once, and the account is gone for good. What they did stays in the
                history.
                <button type="button" class="act quiet remove" data-test="really-remove" @click="remove(p)">
                  Remove {{ p.name }}
                </button>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <OnceShown v-if="link" :what="said" :text="link" />
      <p v-if="!inviting">
        <button type="button" class="act" data-test="invite" @click="beginInviting">Invite somebody</button>
      </p>
      <form v-else class="sheet" data-test="invite-form" @submit.prevent="invite">
        <PlainField v-model="name" label="Name" :maxlength="60" hint="Suggested to them; may be empty." />
        <RolesField v-model:planner="planner" v-model:roles="roles" :sites="sites ?? []" />
        <p v-if="problem" class="short" role="alert">{{ problem }}</p>
        <button type="submit" class="act" :disabled="busy">Make a link</button>
      </form>
      <h2>Signing in</h2>
      <label
        ><input
          type="checkbox"
          :checked="data.asksTwo"
          data-test="asks-two"
          @change="askTwo(($event.target as HTMLInputElement).checked)"
        />
        Everybody shows a passkey, or a code beside the password. Who has neither sets one up first.</label
      >
    </template>
  </PeopleFrame>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
}

form {
  display: grid;
  gap: 8px;
}

form .act {
  justify-self: start;
}
</style>
