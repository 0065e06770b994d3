<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '../api/ask'
import { api, fileBody, inWords } from '../api/client'
import type { ReadDates, SpecialDay } from '../api/types'
import { useYear } from '../disk/useYear'
import YearLine from '../disk/YearLine.vue'
import { useSite } from '../site/useSite'
import FilePick from '../ui/FilePick.vue'
import { count } from '../ui/figures'
import { rowKey } from '../ui/rowKey'
import TermTip from '../ui/TermTip.vue'
import SpecialDayRow from './SpecialDayRow.vue'
import YearStrip from './YearStrip.vue'

/** The dates on which another day of the week, or another week, holds. */
const site = useSite()
const year = ref(new Date().getFullYear())
const { data: line, failure: lineFailure } = useYear(() => year.value)
const chosen = ref(-1)
const problem = ref('')
const found = ref<ReadDates>()
const days = computed(() => site.plan?.site.specialDays ?? [])

/** The order of the list stays: it decides which of two special days of one date holds. */
function keep(list: SpecialDay[]) {
  problem.value = ''
  site.change([{ setSpecialDays: { days: list } }], undefined, (p) => (problem.value = inWords(p)))
}

function add(from: string, to: string) {
  const at = days.value.findIndex((d) => d.from > from)
  const day: SpecialDay = { from, to, name: 'Special day', useDay: 'sun' }
  keep(days.value.toSpliced(at < 0 ? days.value.length : at, 0, day))
}

async function read(file: File) {
  const params = site.here
  const told = await ask(api.POST('/api/plans/{id}/special-days/read', { params, ...fileBody(file) }))
  found.value = told.data
  problem.value = told.data ? '' : `${told.problem} Nothing was changed.`
}

/** The dates of a calendar that are not there yet. */
const fresh = computed(() => {
  const there = (d: SpecialDay) => days.value.some((x) => x.from === d.from && x.to === d.to && x.name === d.name)
  return (found.value?.days ?? []).filter((d) => !there(d))
})
function accept() {
  keep([...days.value, ...fresh.value])
  found.value = undefined
}
</script>

<template>
  <div class="special">
    <YearLine v-if="days.length" :found="line" :failure="lineFailure" />
    <YearStrip v-model="year" :days="days" :chosen="chosen" @add="add" @choose="(i) => (chosen = i)" />
    <section aria-label="Special days">
      <p class="acts">
        <FilePick label="Import a calendar" accept=".ics,text/calendar" data-test="calendar-file" @pick="read" />
        <a v-if="days.length" :href="`/api/plans/${site.planId}/special-days`" download>Export as a calendar</a>
      </p>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <div v-if="found" class="sheet found" data-test="calendar-says">
        <p>
          <b>{{ count(fresh.length, 'special day') }}</b> in the calendar that
          {{ fresh.length === 1 ? 'is' : 'are' }} not here yet. Recorded as on Sundays until changed.
        </p>
        <p v-for="l in found.leftOut.slice(0, 8)" :key="l" class="soft">Left out: {{ l }}</p>
        <p class="acts">
          <button type="button" class="act" :disabled="!fresh.length" data-test="accept-calendar" @click="accept">
            Add them
          </button>
          <button type="button" class="plain-button link" @click="found = undefined">Cancel</button>
        </p>
      </div>
      <p v-if="!days.length" class="soft">
        No date is <TermTip word="special days">special</TermTip> yet. Click a date in the year, or drag over several.
      </p>
      <table v-else>
        <thead>
          <tr>
            <th>Name</th>
            <th>From</th>
            <th>To</th>
            <th>Every year</th>
            <th>Duties</th>
            <th>What happens</th>
            <th>Times as much happens</th>
            <th><span class="visually-hidden">Remove</span></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(d, i) in days"
            :key="rowKey(days, i, (x) => `${x.from} ${x.name}`)"
            :class="{ here: i === chosen }"
            :data-special="d.from"
            @click="chosen = i"
          >
            <SpecialDayRow
              :day="d"
              @change="(day) => keep(days.with(i, day))"
              @remove="keep(days.toSpliced(i, 1))"
              @refuse="(why) => (problem = why)"
            />
          </tr>
        </tbody>
      </table>
      <p class="soft">
        Duties as on another day leave what happens as it is: a Friday's crowd still comes on a holiday, unless what
        happens is set too. Days kept are those of the ordinary week; beside them the verdict tells the worst date of
        the year. Where dates overlap, the lowest row counts.
      </p>
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
  font-size: var(--second);
  color: var(--soft);
}

tr.here {
  background: var(--selected);
}
</style>
