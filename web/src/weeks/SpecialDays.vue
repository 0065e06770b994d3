<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'

import { inWords } from '../api/client'
import type { ReadDates, SpecialDay, Weekday } from '../api/types'
import { useSite } from '../site/useSite'
import DateField from '../ui/DateField.vue'
import { count } from '../ui/figures'
import { readNumber } from '../ui/number'
import TermTip from '../ui/TermTip.vue'
import { dayNames, weekdays } from '../time/week'
import YearLine from './YearLine.vue'
import YearStrip from './YearStrip.vue'

/** The dates on which another day of the week, or another week, holds. */
const site = useSite()
const year = ref(new Date().getFullYear())
const chosen = ref(-1)
const problem = ref('')
const found = ref<ReadDates>()
const picker = useTemplateRef('picker')
const days = computed(() => site.plan?.site.specialDays ?? [])
const holds = computed(() => [
  ['', 'its own duties'] as const,
  ...weekdays.map((d, i) => [`day ${d}`, `as on a ${dayNames[i]}`] as const),
  ...(site.plan?.weeks ?? []).map((w) => [`week ${w.id}`, `the week “${w.name}”`] as const),
])
const holdsOf = (d: SpecialDay) => (d.week ? `week ${d.week}` : d.useDay ? `day ${d.useDay}` : '')

/** The order of the list stays: it decides which of two special days of one date holds. */
function keep(list: SpecialDay[]) {
  problem.value = ''
  site.change([{ setSpecialDays: { days: list } }], undefined, (p) => (problem.value = inWords(p)))
}

function set(i: number, change: Partial<SpecialDay>) {
  keep(days.value.map((d, k) => (k === i ? { ...d, ...change } : d)))
}

function setHolds(i: number, text: string) {
  const [kind, id] = [text.slice(0, text.indexOf(' ')), text.slice(text.indexOf(' ') + 1)]
  const rest: SpecialDay = { ...days.value[i]! }
  delete rest.week
  delete rest.useDay
  if (!text) rest.rateFactor ??= 1 // a special day differs in something
  keep(days.value.map((d, k) => (k === i ? { ...rest, ...(kind === 'week' && { week: id }), ...(kind === 'day' && { useDay: id as Weekday }) } : d)))
}

/** Sets how much happens; what is typed must be a number, with a point or a comma. */
function setFactor(i: number, input: HTMLInputElement) {
  const text = input.value.trim()
  const d = { ...days.value[i]! }
  const read = readNumber(text, { min: 0, max: 100 })
  if (text && 'why' in read) {
    problem.value = `How much happens, ${d.name}: ${read.why}. 1.5 means half as much again, 0 that nothing happens.`
    return
  }
  if ('value' in read) d.rateFactor = read.value
  else if (d.week || d.useDay) delete d.rateFactor
  else d.rateFactor = 1
  keep(days.value.map((x, k) => (k === i ? d : x)))
}

function add(from: string, to: string) {
  const at = days.value.findIndex((d) => d.from > from)
  keep(days.value.toSpliced(at < 0 ? days.value.length : at, 0, { from, to, name: 'Special day', useDay: 'sun' }))
}

async function read() {
  const file = picker.value?.files?.[0]
  if (picker.value) picker.value.value = ''
  if (!file) return
  problem.value = ''
  found.value = undefined
  try {
    const response = await fetch(`/api/plans/${site.planId}/special-days/read`, { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: file })
    const answer = await response.json()
    if (response.ok) found.value = answer
    else problem.value = `${inWords(answer)} Nothing was changed.`
  } catch {
    problem.value = 'The server does not answer. Nothing was changed.'
  }
}

/** Takes the dates of a calendar that are not there yet. */
const fresh = computed(() => (found.value?.days ?? []).filter((d) => !days.value.some((x) => x.from === d.from && x.to === d.to && x.name === d.name)))
function accept() {
  keep([...days.value, ...fresh.value])
  found.value = undefined
}
</script>

<template>
  <div class="special">
    <YearLine v-if="days.length" :year="year" />
    <YearStrip v-model="year" :days="days" :chosen="chosen" @add="add" @choose="(i) => (chosen = i)" />
    <section aria-label="Special days">
      <p class="acts">
        <input ref="picker" type="file" accept=".ics,text/calendar" hidden aria-label="Calendar" data-test="calendar-file" @change="read" />
        <button type="button" class="act quiet" @click="picker?.click()">Import a calendar</button>
        <a v-if="days.length" :href="`/api/plans/${site.planId}/special-days`" download>Export as a calendar</a>
      </p>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <div v-if="found" class="sheet found" data-test="calendar-says">
        <p><b>{{ count(fresh.length, 'special day') }}</b> in the calendar that {{ fresh.length === 1 ? 'is' : 'are' }} not here yet. They hold as a Sunday, until you say otherwise.</p>
        <p v-for="l in found.leftOut.slice(0, 8)" :key="l" class="soft">Left out: {{ l }}</p>
        <p class="acts"><button type="button" class="act" :disabled="!fresh.length" data-test="accept-calendar" @click="accept">Add them</button> <button type="button" class="plain-button link" @click="found = undefined">Cancel</button></p>
      </div>
      <p v-if="!days.length" class="soft">No date is <TermTip word="special days">special</TermTip> yet. Click a date in the year, or drag over several.</p>
      <table v-else>
        <thead><tr><th>Name</th><th>From</th><th>To</th><th>Every year</th><th>Duties</th><th>Times as much happens</th><th><span class="visually-hidden">Remove</span></th></tr></thead>
        <tbody>
          <tr v-for="(d, i) in days" :key="i" :class="{ here: i === chosen }" :data-special="d.from" @click="chosen = i">
            <td><input :value="d.name" :aria-label="`Name, ${d.from}`" maxlength="200" @change="set(i, { name: ($event.target as HTMLInputElement).value.trim() || 'Special day' })" /></td>
            <td data-test="from"><DateField :value="d.from" :label="`From, ${d.name}`" :refuse="(date) => (date > d.to ? 'after its last date' : '')" @change="(from) => set(i, { from })" /></td>
            <td data-test="to"><DateField :value="d.to" :label="`To, ${d.name}`" :refuse="(date) => (date < d.from ? 'before its first date' : '')" @change="(to) => set(i, { to })" /></td>
            <td><input type="checkbox" :checked="d.yearly" :aria-label="`Every year, ${d.name}`" @change="set(i, { yearly: !d.yearly || undefined })" /></td>
            <td>
              <select :value="holdsOf(d)" :aria-label="`What holds, ${d.name}`" @change="setHolds(i, ($event.target as HTMLSelectElement).value)"><option v-for="[id, name] in holds" :key="id" :value="id">{{ name }}</option></select>
            </td>
            <td><input :value="d.rateFactor ?? ''" placeholder="1" inputmode="decimal" class="factor" :aria-label="`Times as much happens, ${d.name}`" data-test="rate-factor" @change="setFactor(i, $event.target as HTMLInputElement)" /></td>
            <td><button type="button" class="plain-button link short" :aria-label="`Remove ${d.name}`" @click.stop="keep(days.filter((_, k) => k !== i))">Remove</button></td>
          </tr>
        </tbody>
      </table>
      <p class="soft">Days kept are those of the ordinary week; beside them the verdict tells the worst date of the year. Where several special days are of one date, the lowest in this list holds.</p>
    </section>
  </div>
</template>

<style scoped>
.special {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  align-content: start;
}

.acts {
  display: flex;
  gap: 14px;
  align-items: center;
  margin: 0 0 8px;
}

.found {
  margin-bottom: 10px;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th {
  text-align: left;
  font-weight: 600;
  font-size: 12px;
  color: var(--soft);
}

td {
  padding: 2px 6px 2px 0;
  border-bottom: 1px solid var(--rule);
}

tr.here td {
  background: var(--selected);
}

td:first-child {
  width: 30%;
}

.factor {
  width: 64px;
  text-align: right;
}

td:nth-child(5) {
  width: 26%;
}

td input:not([type='checkbox']),
td select {
  width: 100%;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 1px 5px;
}

input[type='checkbox'] {
  accent-color: var(--base);
}
</style>
