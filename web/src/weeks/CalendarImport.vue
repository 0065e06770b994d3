<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'

import { ask } from '../api/ask'
import { api, fileBody, inWords } from '../api/client'
import type { CalendarWeek, Edit } from '../api/types'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import DateField from '../ui/DateField.vue'
import FilePick from '../ui/FilePick.vue'
import TextField from '../ui/TextField.vue'
import { useHand } from '../hand/useHand'

/**
 * A named week made of the hours in a calendar: opening hours, shifts. What each of its events becomes is chosen
 * before.
 */
const site = useSite()
const hand = useHand()
const file = shallowRef<File>()
const found = shallowRef<CalendarWeek>()
const duties = ref<string[]>([]) // one for each name; empty for none
const otherwise = ref('')
const name = ref('')
const problem = ref('')
const all = computed(() => (site.plan?.duties ?? []).map((d) => [d.id, d.name] as const))

function pick(picked: File) {
  file.value = picked
  found.value = undefined
  void read()
}

async function read(of?: string) {
  if (!file.value) return
  const told = await ask(
    api.POST('/api/plans/{id}/weeks/read', {
      params: { ...site.here, query: of ? { of } : {} },
      ...fileBody(file.value),
    }),
  )
  problem.value = told.data ? '' : `${told.problem} Nothing was changed.`
  if (!told.data) {
    found.value = undefined
    return
  }
  const before = new Map(found.value?.events.map((e, i) => [e.name, duties.value[i]!]))
  duties.value = told.data.events.map((e) => before.get(e.name) ?? (e.duty || hand.duty!))
  if (!found.value) {
    name.value = told.data.name || file.value.name.replace(/\.[^.]*$/, '')
    otherwise.value = site.plan!.duties.find((d) => !d.base && !d.event)?.id ?? hand.duty
  }
  found.value = told.data
}

async function create() {
  const [id] = (await site.freeIds('week', name.value)) ?? []
  if (!id) return
  const paints = found.value!.events.flatMap((e, i): Edit[] =>
    duties.value[i] ? [{ paint: { weeks: [id], hours: e.hours, duty: duties.value[i] } }] : [],
  )
  site.change(
    [{ setWeek: { week: { id, name: name.value, otherwise: otherwise.value } } }, ...paints],
    undefined,
    (p) => (problem.value = inWords(p)),
  )
  found.value = undefined
}
</script>

<template>
  <FilePick
    label="Week from a calendar…"
    accept=".ics,text/calendar"
    class="begin"
    data-test="week-file"
    @pick="pick"
  />
  <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  <section v-if="found" class="sheet" aria-label="Week from a calendar" data-test="week-says">
    <div class="facts">
      <TextField label="Name" :value="name" :maxlength="100" @change="(text) => (name = text || name)" />
      <label
        >The calendar’s week of
        <DateField :value="found.monday" label="Date of the week to read" @change="(date) => read(date)"
      /></label>
    </div>
    <p v-if="!found.events.length" class="short">The calendar has nothing in that week. Choose another date.</p>
    <table v-else>
      <thead>
        <tr>
          <th>In the calendar</th>
          <th>Hours</th>
          <th>Becomes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(e, i) in found.events" :key="e.name">
          <td>{{ e.name }}</td>
          <td>{{ e.text }}</td>
          <td>
            <ChoiceField
              bare
              :label="`What ${e.name} becomes`"
              :value="duties[i]"
              :choices="[['', 'leave it out'], ...all]"
              @change="(d) => (duties[i] = d)"
            />
          </td>
        </tr>
        <tr>
          <td class="soft">at all other times</td>
          <td />
          <td>
            <ChoiceField
              bare
              label="Duty at all other times"
              :value="otherwise"
              :choices="all"
              @change="(d) => (otherwise = d)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="found.events.length > 1" class="soft">Where two are at the same time, the lower one counts.</p>
    <p v-for="l in found.leftOut.slice(0, 8)" :key="l" class="soft">Left out: {{ l }}</p>
    <p v-if="found.leftOut.length > 8" class="soft">and {{ found.leftOut.length - 8 }} more</p>
    <p class="ends">
      <button type="button" class="act" :disabled="!found.events.length" data-test="create-week" @click="create">
        Create the week
      </button>
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
