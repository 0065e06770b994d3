<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { computed, useId, useTemplateRef } from 'vue'

import { dateWords } from '../time/dates'
import { three } from '../ui/figures'

/** Days kept at every date of a year, a line for each pool or variant; what is short lies below what is required. */
export interface YearCurve {
  id: string
  name?: string // stands at its end, where there are several
  days: number[]
  required: number // days; 0 for nothing
}
const {
  from,
  curves,
  height = 116,
} = defineProps<{ from: string; curves: YearCurve[]; label: string; height?: number }>()

const box = useTemplateRef('box')
const { width } = useElementSize(box)
const id = useId()
const named = computed(() => curves.length > 1 && curves.some((c) => c.name))
const edge = computed(() => ({ left: 26, right: named.value ? 112 : 6, top: 18, bottom: 18 }))
const dates = computed(() => Math.max(365, ...curves.map((c) => c.days.length)))
const across = computed(() =>
  scaleLinear([0, dates.value], [edge.value.left, Math.max(edge.value.left + 1, width.value - edge.value.right)]),
)
/** What is required by any of them, each once. */
const lines = computed(() => [...new Set(curves.map((c) => c.required))].filter(Boolean))
/** From a little below the least to a little above the most: a year that dips by a fifth shows it. */
const up = computed(() => {
  const all = curves.flatMap((c) => c.days).concat(lines.value)
  const [low, high] = [Math.min(...all), Math.max(...all)]
  const room = Math.max((high - low) * 0.15, high * 0.05, 0.01)
  return scaleLinear([Math.max(0, low - 2 * room), high + room], [height - edge.value.bottom, edge.value.top]).nice(3)
})
const path = (days: number[]) => days.map((d, i) => `${across.value(i).toFixed(1)},${up.value(d).toFixed(1)}`).join(' ')

const months = computed(() => {
  const first = Date.parse(from)
  const name = new Intl.DateTimeFormat('en-GB', { month: width.value > 480 ? 'short' : 'narrow', timeZone: 'UTC' })
  return Array.from({ length: 12 }, (_, m) => {
    const at = Date.UTC(new Date(first).getUTCFullYear(), m, 1)
    return { m, name: name.format(at), day: (at - first) / 86_400_000 }
  })
})

/** The least of each line that dips, with its date. */
const least = computed(() =>
  curves.flatMap((c) => {
    const days = Math.min(...c.days)
    if (days > Math.max(...c.days) - 0.05) return []
    const day = c.days.indexOf(days)
    const date = new Date(Date.parse(from) + day * 86_400_000).toISOString()
    const [x, y] = [across.value(day), up.value(days)]
    const words = `${three(days)} d, ${dateWords(date).replace(/ \d{4}$/, '')}`
    // Below the lowest line there is room; the others say it above theirs.
    const lowest = curves.every((o) => o === c || Math.min(...o.days) >= days)
    const at = Math.min(width.value - edge.value.right - 40, Math.max(edge.value.left + 40, x))
    return [{ id: c.id, x, y, words, tx: at, ty: lowest ? y + 13 : y - 7 }]
  }),
)

/** Names stand at the ends of their lines, apart from each other. */
const names = computed(() => {
  if (!named.value) return []
  let last = -Infinity
  return curves
    .map((c) => ({ id: c.id, name: c.name ?? '', y: up.value(c.days.at(-1) ?? 0) + 3.5 }))
    .sort((a, b) => a.y - b.y)
    .map((n) => ({ ...n, y: (last = Math.max(n.y, last + 12)) }))
})
</script>

<template>
  <div ref="box" class="chart" :style="{ minHeight: `${height}px` }">
    <svg v-if="width" :width="width" :height="height" role="img" :aria-label="label">
      <defs>
        <clipPath v-for="c in curves" :id="`${id}-${c.id}`" :key="c.id">
          <rect x="0" :y="up(c.required)" :width="width" :height="Math.max(0, height - up(c.required))" />
        </clipPath>
      </defs>
      <text x="0" y="10">days</text>
      <template v-for="v in up.ticks(3)" :key="v">
        <line class="rule" :x1="edge.left" :x2="width - edge.right" :y1="up(v)" :y2="up(v)" />
        <text class="end" :x="edge.left - 4" :y="up(v) + 3.5">{{ v }}</text>
      </template>
      <template v-for="m in months" :key="m.m">
        <line class="rule" :x1="across(m.day)" :x2="across(m.day)" :y1="height - edge.bottom" :y2="height - 14" />
        <text class="middle" :x="across(m.day + 15)" :y="height - 5">{{ m.name }}</text>
      </template>
      <template v-for="r in lines" :key="r">
        <line class="required" :x1="edge.left" :x2="width - edge.right" :y1="up(r)" :y2="up(r)" />
        <text class="strong" :x="edge.left + 4" :y="up(r) - 4">{{ three(r) }} d required</text>
      </template>
      <g v-for="(c, i) in curves" :key="c.id" :data-curve="c.id">
        <polygon
          v-if="i === 0 && c.required"
          class="gap"
          :points="`${across(0)},${up(c.required)} ${path(c.days)} ${across(c.days.length - 1)},${up(c.required)}`"
          :clip-path="`url(#${id}-${c.id})`"
        />
        <polyline :points="path(c.days)" :class="`look-${i}`" />
        <polyline
          v-if="c.required"
          :points="path(c.days)"
          :class="`look-${i}`"
          class="below"
          :clip-path="`url(#${id}-${c.id})`"
        />
      </g>
      <g v-for="l in least" :key="l.id">
        <circle :cx="l.x" :cy="l.y" r="2.5" />
        <text class="strong middle" :x="l.tx" :y="l.ty">{{ l.words }}</text>
      </g>
      <text v-for="n in names" :key="n.id" class="strong" :x="width - edge.right + 6" :y="n.y">
        <title>{{ n.name }}</title>
        {{ n.name.length > 18 ? `${n.name.slice(0, 17)}…` : n.name }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
svg {
  display: block;
}

text {
  fill: var(--soft);
  font-size: var(--axis);
}

.strong {
  fill: var(--ink);
  stroke: var(--sheet);
  stroke-width: 3px;
  paint-order: stroke;
}

.end {
  text-anchor: end;
}

.middle {
  text-anchor: middle;
}

.rule {
  stroke: var(--rule);
}

.required {
  stroke: var(--ink);
  stroke-dasharray: 4 3;
}

polyline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}

.below {
  stroke: var(--short);
  stroke-width: 2.5;
}

.gap {
  fill: color-mix(in srgb, var(--short) 12%, transparent);
}

.look-1 {
  stroke-dasharray: 7 3;
}

.look-2 {
  stroke-dasharray: 2 3;
}

.look-3 {
  stroke-dasharray: 9 3 2 3;
}
</style>
