<script setup lang="ts">
import { computed } from 'vue'

import type { Alerts, Monitor } from '../../api/types'
import { three } from '../../ui/figures'
import FindingsOf from '../parts/FindingsOf.vue'
import HourRibbon from '../parts/HourRibbon.vue'
import MonitorForm from './MonitorForm.vue'

/** A monitor's week: how much of each hour it is taken. */
const { monitor, alerts } = defineProps<{ monitor: Monitor; alerts: Alerts | undefined; index: number }>()
const hours = computed(() => alerts?.hours.monitors?.find((m) => m.id === monitor.id))
const figures = computed(() => alerts?.monitors?.find((m) => m.id === monitor.id))
const on = computed(() => (hours.value?.on ?? []).map((v) => 100 * v))
const say = (i: number) => {
  const [shown, cut] = [hours.value?.shown?.[i] ?? 0, hours.value?.cutShort?.[i] ?? 0]
  return `in use for ${three(on.value[i] ?? 0)} % of it, ${three(shown)} showings, ${three(cut)} cut short`
}
</script>

<template>
  <article class="card" :data-card="monitor.id">
    <MonitorForm :monitor="monitor" />
    <div>
      <div class="awaited">
        <HourRibbon
          v-if="hours"
          :label="`${monitor.name}: how much of each hour it shows something`"
          :ink="on"
          :say="say"
        />
        <p v-if="figures" class="figures">
          <span
            ><b>{{ three(figures.perDay) }}</b> showings a day</span
          >
          <span
            >in use for <b>{{ three(figures.onPercent) }} %</b> of the time,
            <b>{{ three(figures.busiestOnPercent) }} %</b> of the busiest hour</span
          >
          <span
            ><b>{{ three(figures.cutShortPercent) }} %</b> cut short by the next</span
          >
        </p>
      </div>
      <FindingsOf :at="`monitors[${index}]`" />
    </div>
  </article>
</template>
