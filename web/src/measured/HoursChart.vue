<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import type { FoundFigure } from '../api/types'
import { three } from '../ui/figures'

/** One figure by hour of the day: the plan as steps, what was found as another, with what chance leaves open. */
const props = defineProps<{ figure: FoundFigure }>()
const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box)
const height = 190
const left = 46
const bottom = 22
const hours = computed(() => props.figure.hours ?? [])
const most = computed(() => 1.08 * Math.max(1e-6, ...hours.value.flatMap((h) => [h.planned, h.high])))
const wide = computed(() => Math.max(240, width.value) - left - 6)
const x = (hour: number) => left + (hour / 24) * wide.value
const y = (value: number) => (height - bottom) * (1 - value / most.value)
const steps = computed(() => {
  const at = hours.value.map((h, k) => `${k ? 'L' : 'M'}${x(k)},${y(h.planned)} L${x(k + 1)},${y(h.planned)}`)
  return at.join(' ')
})
const band = computed(() => {
  const up = hours.value.flatMap((h, k) => [`${x(k)},${y(h.high)}`, `${x(k + 1)},${y(h.high)}`])
  const down = hours.value.flatMap((h, k) => [`${x(k)},${y(h.low)}`, `${x(k + 1)},${y(h.low)}`])
  return `M${up.join(' L')} L${down.reverse().join(' L')} Z`
})
const found = computed(() =>
  hours.value.map((h, k) => `${k ? 'L' : 'M'}${x(k)},${y(h.found)} L${x(k + 1)},${y(h.found)}`).join(' '),
)
const unit = computed(() => (props.figure.what.startsWith('kbit/s') ? 'kbit/s' : 'an hour'))
const per = computed(() => (props.figure.kind === 'rate' ? 'events an hour, a channel' : 'kbit/s'))
const grid = computed(() => {
  const step = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000].find(
    (s) => most.value / s <= 5,
  )
  return step ? Array.from({ length: Math.floor(most.value / step) + 1 }, (_, k) => k * step) : [0]
})
const label = computed(() => {
  const furthest = hours.value
    .map((h, k) => ({ k, off: Math.abs(Math.log((h.found + 1e-6) / (h.planned + 1e-6))), h }))
    .sort((a, b) => b.off - a.off)[0]
  return furthest
    ? `${props.figure.name} by hour of the day; furthest apart at ${furthest.k}:00, planned ${three(furthest.h.planned)}, found ${three(furthest.h.found)} ${unit.value}`
    : props.figure.name
})
</script>

<template>
  <section ref="box" class="hours" data-test="by-hour">
    <h2>{{ figure.name }}, {{ per }}, by hour of the day</h2>
    <svg :width="wide + left + 6" :height="height" role="img" :aria-label="label">
      <g v-for="g in grid" :key="g">
        <line class="grid" :x1="left" :x2="left + wide" :y1="y(g)" :y2="y(g)" />
        <text class="tick" :x="left - 6" :y="y(g) + 4" text-anchor="end">{{ three(g) }}</text>
      </g>
      <path class="band" :d="band" />
      <path class="found" :d="found" />
      <path class="planned" :d="steps" />
      <text v-for="h in 9" :key="h" class="tick" :x="x((h - 1) * 3)" :y="height - 6" text-anchor="middle">
        {{ (h - 1) * 3 }}
      </text>
    </svg>
    <p class="legend">
      <span><i class="planned" /> as planned</span>
      <span><i class="found" /> found, with what chance leaves open</span>
    </p>
    <details>
      <summary>As a table</summary>
      <table>
        <thead>
          <tr>
            <th scope="col">Hour</th>
            <th scope="col">Planned</th>
            <th scope="col">Found</th>
            <th scope="col">Chance leaves open</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(h, k) in hours" :key="k">
            <th scope="row">{{ k }}:00</th>
            <td>{{ three(h.planned) }}</td>
            <td>{{ three(h.found) }}</td>
            <td>{{ three(h.low) }} to {{ three(h.high) }}</td>
          </tr>
        </tbody>
      </table>
    </details>
  </section>
</template>

<style scoped>
.hours {
  margin-top: 14px;
}

h2 {
  margin: 14px 0 6px;
}

svg {
  display: block;
}

.grid {
  stroke: var(--rule);
}

.tick {
  fill: var(--soft);
  font-size: var(--axis);
}

.band {
  fill: var(--ink);
  opacity: 0.16;
}

path.found {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}

path.planned {
  fill: none;
  stroke: var(--soft);
  stroke-width: 1.5;
  stroke-dasharray: 5 3;
}

.legend {
  display: flex;
  gap: 18px;
  margin: 2px 0 6px;
}

i {
  display: inline-block;
  width: 18px;
  border-top: 2px solid var(--ink);
  vertical-align: 4px;
  margin-right: 4px;
}

i.planned {
  border-top: 2px dashed var(--ink);
}

td,
th {
  text-align: right;
  font-weight: 400;
  padding: 2px 12px 2px 0;
}

summary {
  cursor: pointer;
  min-height: 24px;
}
</style>
