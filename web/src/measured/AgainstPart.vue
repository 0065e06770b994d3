<script setup lang="ts">
import { computed, ref } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import BringIn from './BringIn.vue'
import CorrectAll from './CorrectAll.vue'
import DaysBands from './DaysBands.vue'
import FigureTable from './FigureTable.vue'
import HoursChart from './HoursChart.vue'
import SetAside from './SetAside.vue'
import { dateWords } from '../time/dates'
import { keyOf, useMeasured } from './useMeasured'

/** The plan's ranges and what was found, on one scale; what differs, by what it costs; one thing by hour. */
const site = useSite()
const { found, failure, asking, differ, asPlanned, inHand, show } = useMeasured()
const result = computed(() => found.value?.result)
const left = ref<ReadonlySet<string>>(new Set()) // what is not to be corrected, of what differs
const chosen = computed(() => differ.value.filter((f) => f.edits.length && !left.value.has(keyOf(f))))
function leave(key: string, out: boolean) {
  const next = new Set(left.value)
  if (out) next.add(key)
  else next.delete(key)
  left.value = next
}
const span = computed(() => {
  const r = result.value
  if (!r) return ''
  const parts = []
  if (r.from && r.to) parts.push(`${dateWords(r.from)} to ${dateWords(r.to)}`)
  if (r.logs.length) parts.push(`logs of ${count(r.logs.length, 'channel')}`)
  if (r.rates.length) parts.push(`bitrates of ${r.rates.length}`)
  if (r.oldest.length) parts.push(`oldest footage of ${r.oldest.length}`)
  return parts.join(' · ')
})
</script>

<template>
  <div v-if="found && site.plan" class="against" data-test="measured">
    <div class="main">
      <h1 class="title">Against the plan</h1>
      <p class="soft">{{ span || 'What really happened, held against what was planned.' }}</p>
      <template v-if="result">
        <p v-if="failure" class="short" role="alert">{{ failure }} The figures below are those of before.</p>
        <DaysBands :days="result.days" :worth="result.worth" />
        <SetAside :result="result" />
        <h2>What differs, by what it costs</h2>
        <p v-if="!differ.length" data-test="nothing-differs">
          Nothing differs by more than chance: {{ count(asPlanned.length, 'figure') }} of the plan
          {{ asPlanned.length === 1 ? 'is' : 'are' }} as planned.
        </p>
        <FigureTable
          v-else
          :figures="differ"
          :in-hand="inHand"
          :left="left"
          data-test="differ"
          @show="show"
          @leave="leave"
        />
        <CorrectAll v-if="differ.length" :result="result" :chosen="chosen" />
        <HoursChart v-if="inHand?.hours?.length" :figure="inHand" />
        <details v-if="asPlanned.length" data-test="as-planned">
          <summary>{{ count(asPlanned.length, 'figure') }} as planned, as far as chance allows to tell</summary>
          <FigureTable :figures="asPlanned" :in-hand="inHand" quiet @show="show" />
        </details>
        <p>
          <a :href="`/api/plans/${encodeURIComponent(site.planId)}/measured/file`" download data-test="measured-file"
            >Save as a file</a
          >
        </p>
        <ul v-if="result.notes.length" class="soft notes">
          <li v-for="n in result.notes" :key="n">{{ n }}</li>
        </ul>
      </template>
      <template v-else>
        <p class="soft">Nothing was brought in yet. What helps most, a file each:</p>
        <ul class="helps">
          <li><b>an event log</b> of as many channels as there are: <code>start, end, channel</code></li>
          <li><b>the oldest footage</b>, typed as you see it: <code>channel 3 goes back to 12 Oct</code></li>
          <li><b>bitrates</b>, means of an hour: <code>time, channel, kbps</code></li>
          <li><b>settings</b>: a channel table with what the recorder has</li>
        </ul>
        <PlanGlance class="planned" />
      </template>
    </div>
    <BringIn class="side" :brought="found.brought" :asking="asking" />
  </div>
  <div v-else class="empty">
    <h1 class="title">Against the plan</h1>
    <p v-if="failure" role="alert" class="short">{{ failure }}</p>
    <p v-else class="soft" role="status">What was found is being held against the plan…</p>
  </div>
</template>

<style scoped>
.against {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 264px;
  height: 100%;
}

.main {
  overflow: auto;
  padding: 12px 18px 30px;
  position: relative;
}

.main:has(> .planned) {
  display: flex;
  flex-direction: column;
}

.planned {
  padding: 16px 0 0;
}

h2 {
  margin: 18px 0 4px;
}

p {
  margin: 2px 0 8px;
}

.helps {
  padding-left: 18px;
  max-width: 640px;
}

.helps li {
  margin: 6px 0;
}

.notes {
  padding-left: 18px;
}

details {
  margin-top: 18px;
}

summary {
  cursor: pointer;
  min-height: 24px;
}

.empty {
  padding: 12px 18px;
}

@media (max-width: 900px) {
  .against {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }

  .main,
  .side {
    overflow: visible;
  }
}
</style>
