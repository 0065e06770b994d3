<script setup lang="ts">
import { ref } from 'vue'

import PlanGlance from '../../glance/PlanGlance.vue'
import { ask, useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { me } from '../../api/session'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { notice } from '../../ui/notice'
import { moment } from '../../time/dates'

/** Links by which a customer sees one variant of the site, without an account. */
const site = useSite()
const {
  data: links,
  failure,
  again,
} = useAnswer(
  () => [site.id, me.value?.accounts],
  () => (me.value?.accounts ? api.GET('/api/sites/{id}/links', { params: { path: { id: site.id } } }) : undefined),
  { keep: true },
)
const things = [
  ['verdict', 'How long footage is kept'],
  ['weeks', 'The weeks of all channels'],
  ['papers', 'The page for agreement'],
  ['prices', 'What the drives cost'],
] as const
const name = ref('')
const shows = ref<('verdict' | 'weeks' | 'papers' | 'prices')[]>(['verdict', 'weeks', 'papers'])
const days = ref('30')
const password = ref('')
const made = ref('')
const problem = ref('')
const looked = ref<{ id: string; lines: { at: string; what: string; address: string }[] }>()

async function make() {
  problem.value = ''
  made.value = ''
  const told = await ask(
    api.POST('/api/sites/{id}/links', {
      params: { path: { id: site.id } },
      body: {
        plan: site.planId,
        name: name.value,
        shows: shows.value,
        days: Number(days.value),
        password: password.value || undefined,
      },
    }),
  )
  if (!told.data) return void (problem.value = told.problem)
  made.value = `${location.origin}/shared#${told.data.secret}`
  name.value = password.value = ''
  void again()
}
async function end(link: string) {
  const told = await ask(api.DELETE('/api/sites/{id}/links/{link}', { params: { path: { id: site.id, link } } }))
  if (told.problem) notice(told.problem, { error: true })
  void again()
}
async function look(id: string) {
  if (looked.value?.id === id) return void (looked.value = undefined)
  const told = await ask(
    api.GET('/api/sites/{id}/links/{link}/viewings', { params: { path: { id: site.id, link: id } } }),
  )
  if (told.data) looked.value = { id, lines: told.data }
}
const variant = (id: string) => site.variants.find((v) => v.id === id)?.name ?? id
const over = (l: { ended: string | null; expires: string }) => !!l.ended || new Date(l.expires) < new Date()
const copy = (text: string) =>
  navigator.clipboard.writeText(text).then(
    () => notice('The link was copied.'),
    () => notice('The browser does not let it be copied; mark it and copy it by hand.', { error: true }),
  )
</script>

<template>
  <div class="links">
    <h1 class="title">Links for customers</h1>
    <p v-if="me && !me.accounts" data-test="links-need-accounts">
      A link shows one variant to somebody without an account, read-only, until a date. That takes a server with
      accounts:
      <code>wakefield serve</code>, or <code>wakefield demo --accounts</code> to try it.
    </p>
    <template v-else-if="site.role === 'planner'">
      <p class="soft">
        Whoever has the link sees {{ site.plan?.site.name }}, {{ site.plan?.name }}, as it is at the time, and can
        change nothing. No address of a device is shown.
      </p>
      <p v-if="failure" class="short" role="alert">{{ failure }}</p>
      <form class="sheet" data-test="link-form" @submit.prevent="make">
        <label>For <input v-model="name" maxlength="100" placeholder="whom" data-field="link-name" /></label>
        <fieldset>
          <legend>Shows</legend>
          <label v-for="[id, words] in things" :key="id"
            ><input v-model="shows" type="checkbox" :value="id" :data-shows="id" /> {{ words }}</label
          >
        </fieldset>
        <label
          >Good for
          <input v-model="days" type="number" min="1" max="366" class="days" data-field="link-days" /> days</label
        >
        <label
          >Password
          <input
            v-model="password"
            type="password"
            autocomplete="new-password"
            maxlength="128"
            placeholder="none"
            data-field="link-password"
        /></label>
        <p v-if="problem" class="short" role="alert">{{ problem }}</p>
        <button type="submit" class="act" :disabled="!name.trim() || !shows.length" data-test="make-link">
          Make a link
        </button>
      </form>
      <div v-if="made" class="sheet" role="status" data-test="made-link">
        <p>Give this to the customer. It is not shown again.</p>
        <pre tabindex="0">{{ made }}</pre>
        <button type="button" class="act quiet" @click="copy(made)">Copy</button>
      </div>
      <table v-if="links?.length" data-test="links">
        <thead>
          <tr>
            <th>For</th>
            <th>Variant</th>
            <th>Shows</th>
            <th>Until</th>
            <th>Looked at</th>
            <th><span class="visually-hidden">Act</span></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="l in links" :key="l.id">
            <tr :class="{ soft: over(l) }">
              <td>{{ l.name }}<span v-if="l.protected" class="soft"> (password)</span></td>
              <td>{{ variant(l.plan) }}</td>
              <td>{{ l.shows.join(', ') }}</td>
              <td>{{ l.ended ? `ended ${moment(l.ended)}` : moment(l.expires) }}</td>
              <td>
                <button v-if="l.looked" type="button" class="plain-button link" @click="look(l.id)">
                  {{ count(l.looked, 'time') }}, last {{ moment(l.last!) }}</button
                ><template v-else>never</template>
              </td>
              <td>
                <button
                  v-if="!over(l)"
                  type="button"
                  class="plain-button link short"
                  data-test="end-link"
                  :aria-label="`End the link for ${l.name}`"
                  @click="end(l.id)"
                >
                  End
                </button>
              </td>
            </tr>
            <tr v-if="looked?.id === l.id">
              <td colspan="6">
                <ul>
                  <li v-for="(v, i) in looked.lines" :key="i">
                    {{ moment(v.at) }}: {{ v.what }}, from {{ v.address }}
                  </li>
                </ul>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </template>
    <p v-else>The planners of this site make links for customers.</p>
    <PlanGlance v-if="me && (!me.accounts || links || site.role !== 'planner')" class="plan" />
  </div>
</template>

<style scoped>
.links {
  display: flex;
  flex-direction: column;
  overflow: auto;
  padding: 16px 24px;
}

/* What stands in the page stands as it is; the plan has the rest. */
.links > :not(.plan) {
  flex: none;
}

.plan {
  padding: 0;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: end;
  margin: 8px 0;
}

form > p {
  flex-basis: 100%;
  margin: 0;
}

fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  border: 0;
  padding: 0;
  margin: 0;
}

legend {
  padding: 0;
  color: var(--soft);
  font-size: var(--second);
}

.days {
  width: 72px;
}

[data-test='made-link'] p {
  margin: 0 0 4px;
}

pre {
  margin: 0 0 8px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  user-select: all;
}

table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 16px;
}

th {
  text-align: left;
  font-weight: 400;
  font-size: var(--second);
  color: var(--soft);
}

th,
td {
  padding: 4px 12px 4px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}
</style>
