<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import type { FoundDays } from '../api/types'
import { three } from '../ui/figures'

/** The days that pools keep footage: as planned and as found, two bands on one scale, with what is required. */
const props = defineProps<{ days: FoundDays[]; worth: number }>()
const box = useTemplateRef<HTMLElement>('box')
const { width } = useElementSize(box)

const most = computed(() => {
  const all = props.days.flatMap((d) => [d.planned?.high ?? 0, d.found?.high ?? 0, d.required ?? 0, d.oldest ?? 0])
  return Math.max(1, 1.12 * Math.max(...all))
})
const x = (days: number) => (days / most.value) * Math.max(100, width.value)
const step = computed(() => [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500].find((s) => most.value / s <= 9) ?? 1000)
const ticks = computed(() => Array.from({ length: Math.floor(most.value / step.value) + 1 }, (_, k) => k * step.value))
/** Days as they are asked for: 40, not 40.0. */
const plainDays = (n: number) => (Number.isInteger(n) ? String(n) : three(n))
const range = (r: { low: number; high: number }) => `${three(r.low)} to ${three(r.high)}`
const words = (d: FoundDays) =>
  [
    d.planned && `as planned ${range(d.planned)} days`,
    d.found ? `found ${range(d.found)} days` : 'no range found',
    d.oldest && `oldest footage ${three(d.oldest)} days`,
    d.required && `${plainDays(d.required)} required`,
  ]
    .filter(Boolean)
    .join(', ')
const narrower = (d: FoundDays) =>
  d.inTwoWeeks && d.found && d.found.high - d.found.low > 1.05 * (d.inTwoWeeks.high - d.inTwoWeeks.low)
</script>

<template>
  <section ref="box" aria-label="Days kept" data-test="days-bands">
    <h2>Days kept</h2>
    <figure v-for="d in days" :key="d.pool">
      <figcaption v-if="days.length > 1">{{ d.name }}</figcaption>
      <svg :width="Math.max(100, width)" height="84" role="img" :aria-label="`${d.name}: ${words(d)}`">
        <line class="axis" x1="0" :x2="Math.max(100, width)" y1="62" y2="62" />
        <g v-for="t in ticks" :key="t">
          <line class="axis" :x1="x(t)" :x2="x(t)" y1="62" y2="66" />
          <text class="tick" :x="x(t)" y="79" :text-anchor="t ? 'middle' : 'start'">{{ t }}</text>
        </g>
        <rect
          v-if="d.planned"
          class="planned"
          :x="x(d.planned.low)"
          :width="Math.max(2, x(d.planned.high) - x(d.planned.low))"
          y="16"
          height="14"
        />
        <rect
          v-if="d.found"
          class="found"
          :x="x(d.found.low)"
          :width="Math.max(2, x(d.found.high) - x(d.found.low))"
          y="36"
          height="14"
        />
        <line v-if="d.required" class="required" :x1="x(d.required)" :x2="x(d.required)" y1="12" y2="62" />
        <line v-if="d.oldest" class="oldest" :x1="x(d.oldest)" :x2="x(d.oldest)" y1="32" y2="62" />
      </svg>
      <p class="legend">
        <span v-if="d.planned" class="soft"><i class="planned" /> as planned, {{ range(d.planned) }}</span>
        <b v-if="d.found" data-test="found-days"><i class="found" /> found, {{ range(d.found) }}</b>
        <span v-if="d.oldest"><i class="oldest" /> oldest footage, {{ three(d.oldest) }} days</span>
        <span v-if="d.required" class="short"><i class="required" /> {{ plainDays(d.required) }} required</span>
        <span v-if="narrower(d)" class="soft">two weeks more would tell {{ range(d.inTwoWeeks!) }}</span>
      </p>
    </figure>
    <p v-if="worth < 100" class="short">
      What was brought in contradicts itself, or the plan, too much for a range of days to be told. What differs stands
      below; correct that first.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 10px 0 2px;
}

figure {
  margin: 0;
}

svg {
  display: block;
  overflow: visible;
}

.axis {
  stroke: var(--rule);
}

.tick {
  fill: var(--soft);
  font-size: var(--axis);
}

rect.planned {
  fill: var(--soft);
  opacity: 0.32;
}

rect.found {
  fill: var(--ink);
}

line.required {
  stroke: var(--short);
  stroke-width: 1.5;
  stroke-dasharray: 3 3;
}

line.oldest {
  stroke: var(--ink);
  stroke-width: 2;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 2px 0 6px;
}

i {
  display: inline-block;
  width: 14px;
  height: 8px;
  margin-right: 2px;
}

i.planned {
  background: var(--soft);
  opacity: 0.4;
}

i.found {
  background: var(--ink);
}

i.oldest,
i.required {
  width: 0;
  height: 12px;
  vertical-align: -2px;
  border-left: 2px solid var(--ink);
  margin: 0 6px 0 4px;
}

i.required {
  border-left: 2px dashed var(--short);
}
</style>
