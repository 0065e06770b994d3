<script setup lang="ts">
import { ref, shallowRef, useTemplateRef } from 'vue'

import { api, inWords } from '../api/client'
import type { CalendarWeek, Edit, Problem } from '../api/types'
import { useSite } from '../site/useSite'
import DateField from '../ui/DateField.vue'
import TextField from '../ui/TextField.vue'
import { useHand } from '../hand/useHand'

/** A named week made of the hours in a calendar: opening hours, shifts. What each of its events becomes is chosen before. */
const props = defineProps<{ newId: (name: string) => string }>()
const site = useSite()
const hand = useHand()
const picker = useTemplateRef('picker')
const file = shallowRef<File>()
const found = shallowRef<CalendarWeek>()
const duties = ref<string[]>([]) // one for each name; empty for none
const otherwise = ref('')
const name = ref('')
const problem = ref('')

function pick() {
  file.value = picker.value?.files?.[0]
  if (picker.value) picker.value.value = ''
  void read()
}

async function read(of?: string) {
  if (!file.value) return
  problem.value = ''
  try {
    const { data, error } = await api.POST('/api/plans/{id}/weeks/read', {
      params: { ...site.here, query: of ? { of } : {} },
      headers: { 'Content-Type': 'application/octet-stream' },
      body: file.value as unknown as string,
      bodySerializer: (body) => body as unknown as File,
    })
    if (!data) {
      found.value = undefined
      problem.value = `${inWords(error as Problem)} Nothing was changed.`
      return
    }
    const before = new Map(found.value?.events.map((e, i) => [e.name, duties.value[i]!]))
    duties.value = data.events.map((e) => before.get(e.name) ?? (e.duty || hand.duty!))
    if (!found.value) {
      name.value = data.name || file.value.name.replace(/\.[^.]*$/, '')
      otherwise.value = site.plan!.duties.find((d) => !d.base && !d.event)?.id ?? hand.duty
    }
    found.value = data
  } catch {
    problem.value = 'No connection. Nothing was changed.'
  }
}

function create() {
  const id = props.newId(name.value)
  const paints = found.value!.events.flatMap((e, i): Edit[] => (duties.value[i] ? [{ paint: { weeks: [id], hours: e.hours, duty: duties.value[i] } }] : []))
  site.change([{ setWeek: { week: { id, name: name.value, otherwise: otherwise.value } } }, ...paints], undefined, (p) => (problem.value = inWords(p)))
  found.value = undefined
}
</script>

<template>
  <input ref="picker" type="file" accept=".ics,text/calendar" hidden aria-label="Calendar of a week" data-test="week-file" @change="pick" />
  <button type="button" class="act quiet begin" @click="picker?.click()">Week from a calendar…</button>
  <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  <section v-if="found" class="sheet" aria-label="Week from a calendar" data-test="week-says">
    <div class="facts">
      <TextField label="Name" :value="name" :maxlength="100" @change="(text) => (name = text || name)" />
      <label>The calendar’s week of <DateField :value="found.monday" label="Date of the week to read" @change="(date) => read(date)" /></label>
    </div>
    <p v-if="!found.events.length" class="short">The calendar has nothing in that week. Choose another date.</p>
    <table v-else>
      <thead><tr><th>In the calendar</th><th>Hours</th><th>Becomes</th></tr></thead>
      <tbody>
        <tr v-for="(e, i) in found.events" :key="e.name">
          <td>{{ e.name }}</td>
          <td>{{ e.text }}</td>
          <td>
            <select v-model="duties[i]" :aria-label="`What ${e.name} becomes`"><option value="">leave it out</option><option v-for="d in site.plan?.duties" :key="d.id" :value="d.id">{{ d.name }}</option></select>
          </td>
        </tr>
        <tr>
          <td class="soft">at all other times</td>
          <td />
          <td><select v-model="otherwise" aria-label="What holds at all other times"><option v-for="d in site.plan?.duties" :key="d.id" :value="d.id">{{ d.name }}</option></select></td>
        </tr>
      </tbody>
    </table>
    <p v-if="found.events.length > 1" class="soft">Where two are at the same time, the lower one holds.</p>
    <p v-for="l in found.leftOut.slice(0, 8)" :key="l" class="soft">Left out: {{ l }}</p>
    <p v-if="found.leftOut.length > 8" class="soft">and {{ found.leftOut.length - 8 }} more</p>
    <p class="ends">
      <button type="button" class="act" :disabled="!found.events.length" data-test="create-week" @click="create">Create the week</button>
      <button type="button" class="plain-button link" @click="found = undefined">Cancel</button>
    </p>
  </section>
</template>

<style scoped>
.begin {
  margin: 10px 0 0 10px;
}

.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
}

section {
  max-width: 860px;
  margin-top: 10px;
}

th {
  text-align: left;
  font-weight: 600;
}

td,
th {
  padding: 2px 18px 2px 0;
}

.ends {
  display: flex;
  gap: 14px;
  margin: 8px 0 0;
}
</style>
