<script setup lang="ts">
import { computed } from 'vue'

import type { Alerts, Output } from '../../api/types'
import { three } from '../../ui/figures'
import FindingsOf from '../parts/FindingsOf.vue'
import HourRibbon from '../parts/HourRibbon.vue'
import OutputForm from './OutputForm.vue'

/** An output's week: how much of each hour it is on. */
const { output, alerts } = defineProps<{ output: Output; alerts: Alerts | undefined; index: number }>()
const hours = computed(() => alerts?.hours.outputs?.find((o) => o.id === output.id))
const figures = computed(() => alerts?.outputs?.find((o) => o.id === output.id))
const on = computed(() => (hours.value?.on ?? []).map((v) => 100 * v))
const say = (i: number) => `on for ${three(on.value[i] ?? 0)} % of it, ${three(hours.value?.begins?.[i] ?? 0)} times`
</script>

<template>
  <article class="card" :data-card="output.id">
    <OutputForm :output="output" />
    <div>
      <div class="awaited">
        <HourRibbon v-if="hours" :label="`${output.name}: how much of each hour it is on`" :ink="on" :say="say" />
        <p v-if="figures" class="figures">
          <span
            ><b>{{ three(figures.perDay) }}</b> times a day</span
          >
          <span
            >on for <b>{{ three(figures.onPercent) }} %</b> of the time</span
          >
          <span
            ><b>{{ three(figures.nightPerDay) }}</b> times from 22:00 to 06:00,
            <b>{{ three(figures.nightOnPercent) }} %</b> of it</span
          >
        </p>
      </div>
      <FindingsOf :at="`outputs[${index}]`" />
    </div>
  </article>
</template>
