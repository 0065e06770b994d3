<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { scaleLinear } from 'd3-scale'
import { computed, ref, useTemplateRef } from 'vue'

import type { TargetPoint } from '../api/types'
import { three } from '../ui/figures'
import { kneeOf } from './knee'
import { inside } from '../ui/place'

/**
 * Days against evidence lost, from the plan as it is to the most that can be kept; the point in hand is dragged. Where
 * the last steps would take most of the height, its top is broken, and says how far they go.
 */
const { points, days } = defineProps<{ points: TargetPoint[]; days: number; at: TargetPoint }>()
const emit = defineEmits<{ days: [days: number] }>()
const box = useTemplateRef('box')
const { width } = useElementSize(box)
const H = 150
const edge = { left: 30, right: 14, top: 20, bottom: 30 }

const known = computed(() => points.filter((p): p is TargetPoint & { days: number } => p.days != null))
const low = computed(() => known.value[0]?.days ?? 0)
const high = computed(() => Math.max(low.value + 1e-6, known.value.at(-1)?.days ?? 1))
const across = computed(() =>
  scaleLinear([low.value, high.value], [edge.left, Math.max(edge.left + 1, width.value - edge.right)]),
)
const most = computed(() => Math.max(1e-6, ...known.value.map((p) => p.lostPerDay)))
const least = computed(() => Math.min(0, ...known.value.map((p) => p.lostPerDay)))
const knee = computed(() => kneeOf(known.value))
/** Up to where the scale goes: past the knee, where what lies beyond it is more than twice as high. */
const top = computed(() =>
  knee.value && most.value > 2 * knee.value.lostPerDay ? 1.4 * knee.value.lostPerDay : most.value,
)
const broken = computed(() => top.value < most.value)
const up = computed(() => scaleLinear([least.value, top.value], [H - edge.bottom, edge.top]).nice(3))
const x = (d: number) => across.value(Math.min(high.value, Math.max(low.value, d)))
const y = (lost: number) => Math.max(edge.top - 8, up.value(lost))
const path = computed(() =>
  known.value.map((p, i) => `${i ? 'L' : 'M'}${x(p.days).toFixed(1)} ${y(p.lostPerDay).toFixed(1)}`).join(''),
)
/** Where a line leaves the scale, if it does. */
const leaves = computed(() => {
  const i = known.value.findIndex((p) => p.lostPerDay > up.value.domain()[1]!)
  if (!broken.value || i < 1) return undefined
  const [a, b] = [known.value[i - 1]!, known.value[i]!]
  const share = (up.value.domain()[1]! - a.lostPerDay) / (b.lostPerDay - a.lostPerDay)
  return x(a.days + share * (b.days - a.days))
})

const dragging = ref(false)
function move(event: PointerEvent) {
  if (!dragging.value) return
  const d = across.value.invert(inside(event.currentTarget as SVGElement, event).x)
  emit('days', Math.round(10 * Math.max(low.value, Math.min(high.value, d))) / 10)
}
function press(event: PointerEvent) {
  if (event.button !== 0) return
  ;(event.currentTarget as SVGElement).setPointerCapture(event.pointerId)
  dragging.value = true
  move(event)
}
function key(event: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -5, PageUp: 5 }[event.key]
  if (!by) return
  emit('days', Math.max(1, Math.round(days) + by))
  event.preventDefault()
}
</script>

<template>
  <div ref="box" class="chart">
    <svg
      v-if="width"
      :width="width"
      :height="H"
      class="frontier"
      tabindex="0"
      role="slider"
      aria-label="Days to keep, against events missed"
      :aria-valuemin="low"
      :aria-valuemax="high"
      :aria-valuenow="days"
      :aria-valuetext="`${three(days)} days: ${three(Math.abs(at.lostPerDay))} events a day ${at.lostPerDay < 0 ? 'fewer' : 'more'} missed`"
      data-test="frontier"
      @pointerdown="press"
      @pointermove="move"
      @pointerup="dragging = false"
      @pointercancel="dragging = false"
      @keydown="key"
    >
      <text x="0" y="10">more events missed a day</text>
      <template v-for="v in up.ticks(3)" :key="v">
        <line class="rule" :x1="edge.left" :x2="width - edge.right" :y1="up(v)" :y2="up(v)" />
        <text class="end" :x="edge.left - 5" :y="up(v) + 3.5">{{ v }}</text>
      </template>
      <template v-for="v in across.ticks(Math.max(2, Math.min(6, width / 90)))" :key="v">
        <line class="rule" :x1="across(v)" :x2="across(v)" :y1="H - edge.bottom" :y2="H - edge.bottom + 4" />
        <text class="middle" :x="across(v)" :y="H - 15">{{ v }}</text>
      </template>
      <text :x="edge.left" :y="H - 2">{{ three(low) }} days kept now</text>
      <text class="end" :x="width - edge.right" :y="H - 2">{{ three(high) }} at most</text>
      <path :d="path" class="curve" />
      <circle v-for="(p, i) in known" :key="i" :cx="x(p.days)" :cy="y(p.lostPerDay)" r="2" class="dot" />
      <g v-if="leaves !== undefined">
        <path v-for="k in [0, 4]" :key="k" class="break" :d="`M${leaves - 6} ${edge.top + 3 - k}l12 -4`" />
        <text class="end strong" :x="width - edge.right - 8" :y="edge.top - 10">
          {{ three(most) }} at {{ three(high) }} days
        </text>
      </g>
      <g v-if="knee">
        <circle :cx="x(knee.days)" :cy="y(knee.lostPerDay)" r="4" class="knee" />
        <text class="end strong" :x="x(knee.days) - 8" :y="y(knee.lostPerDay) - 6">
          {{ three(knee.days) }} d: beyond, each day costs far more
        </text>
      </g>
      <line :x1="x(days)" :x2="x(days)" :y1="edge.top - 6" :y2="H - edge.bottom" class="hand" />
      <circle v-if="at.days != null" :cx="x(at.days)" :cy="y(at.lostPerDay)" r="6" class="point" />
    </svg>
  </div>
</template>

<style scoped>
.chart {
  min-height: 150px;
}

.frontier {
  display: block;
  user-select: none;
  touch-action: none;
  cursor: ew-resize;
}

text {
  fill: var(--soft);
  font-size: var(--axis);
}

.strong {
  fill: var(--ink);
  stroke: var(--paper);
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

.curve {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}

.dot {
  fill: var(--ink);
}

.break {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}

.knee {
  fill: none;
  stroke: var(--ink);
}

.hand {
  stroke: var(--ink);
  stroke-dasharray: 4 3;
}

.point {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2.5;
}
</style>
