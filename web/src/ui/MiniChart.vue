<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { computed, ref, useTemplateRef } from 'vue'

import { three, whole } from './figures'
import { inside } from './place'

/** A small chart of lines over one axis, each told from the others by its dash and its name as well as its colour. */
export interface Line {
  name: string
  points: [number, number][]
  color: 'base' | 'motion'
  dashed?: boolean
}
const {
  lines,
  x,
  y,
  height = 110,
  mark = undefined,
  areas = [],
  label,
} = defineProps<{
  lines: Line[]
  x: string
  y: string
  height?: number
  mark?: number
  areas?: [number, number][]
  label: string
}>()

const box = useTemplateRef('box')
const { width } = useElementSize(box)
const edge = { left: 40, right: lines.length > 1 ? 46 : 8, top: 16, bottom: 28 }

const across = computed(() => {
  const all = lines.flatMap((l) => l.points.map((p) => p[0]))
  return scaleLinear(
    [Math.min(...all), Math.max(...all)],
    [edge.left, Math.max(edge.left + 1, width.value - edge.right)],
  )
})
const up = computed(() => {
  const most = Math.max(...lines.flatMap((l) => l.points.map((p) => p[1])), 0)
  return scaleLinear([0, most || 1], [height - edge.bottom, edge.top]).nice(3)
})
const tick = (v: number) => (Number.isInteger(v) ? whole(v) : three(v))
const path = (l: Line) => l.points.map(([a, b]) => `${across.value(a).toFixed(1)},${up.value(b).toFixed(1)}`).join(' ')

/** Names stand at the ends of their lines, apart from each other. */
const names = computed(() => {
  let last = -Infinity
  return lines
    .map((l) => ({ l, y: up.value(l.points.at(-1)?.[1] ?? 0) + 3.5 }))
    .sort((a, b) => a.y - b.y)
    .map(({ l, y: at }) => ({ l, y: (last = Math.max(at, last + 11)) }))
})

const pointed = ref<number>()
function point(event: PointerEvent) {
  const at = across.value.invert(inside(box.value!, event).x)
  const all = lines[0]?.points.map((p) => p[0]) ?? []
  pointed.value = all.reduce((best, v) => (Math.abs(v - at) < Math.abs(best - at) ? v : best), all[0] ?? 0)
}
const read = computed(() =>
  pointed.value === undefined
    ? ''
    : `${three(pointed.value)}: ${lines.map((l) => `${l.name} ${three(l.points.find((p) => p[0] === pointed.value)?.[1] ?? 0)}`).join(', ')}`,
)
</script>

<template>
  <div ref="box" class="chart" @pointermove="point" @pointerleave="pointed = undefined">
    <svg v-if="width" :width="width" :height="height" role="img" :aria-label="label">
      <rect
        v-for="[from, to] in areas"
        :key="from"
        class="area"
        :x="across(from)"
        :width="Math.max(0, across(to) - across(from))"
        :y="edge.top"
        :height="height - edge.top - edge.bottom"
      />
      <template v-for="v in up.ticks(3)" :key="v">
        <line class="rule" :x1="edge.left" :x2="width - edge.right" :y1="up(v)" :y2="up(v)" />
        <text class="end" :x="edge.left - 5" :y="up(v) + 3.5">{{ tick(v) }}</text>
      </template>
      <text v-for="v in across.ticks(6)" :key="v" class="middle" :x="across(v)" :y="height - 16">{{ tick(v) }}</text>
      <text class="middle" :x="(edge.left + width - edge.right) / 2" :y="height - 3">{{ x }}</text>
      <text :x="0" :y="10">{{ y }}</text>
      <text class="end read" :x="width" :y="10">{{ read }}</text>
      <line v-if="mark !== undefined" class="mark" :x1="across(mark)" :x2="across(mark)" :y1="edge.top" :y2="up(0)" />
      <line
        v-if="pointed !== undefined"
        class="rule"
        :x1="across(pointed)"
        :x2="across(pointed)"
        :y1="edge.top"
        :y2="up(0)"
      />
      <polyline v-for="l in lines" :key="l.name" :points="path(l)" :class="[l.color, { dashed: l.dashed }]" />
      <text v-for="n in lines.length > 1 ? names : []" :key="n.l.name" :x="width - edge.right + 4" :y="n.y">
        {{ n.l.name }}
      </text>
    </svg>
  </div>
</template>

<style scoped>
.chart {
  min-height: v-bind('`${height}px`');
}

svg {
  display: block;
}

text {
  fill: var(--soft);
  font-size: var(--axis);
}

.read {
  fill: var(--ink);
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

.mark {
  stroke: var(--ink);
  stroke-dasharray: 1 3;
}

.area {
  fill: var(--motion);
  opacity: 0.16;
}

polyline {
  fill: none;
  stroke-width: 1.5;
}

.base {
  stroke: var(--base);
}

.motion {
  stroke: var(--motion);
}

.dashed {
  stroke-dasharray: 5 3;
}
</style>
