<script setup lang="ts">
import { computed, ref } from 'vue'

import type { ReachPoint } from '../api/types'
import { three } from '../ui/figures'

/** Days against evidence lost, from the plan as it is to the most that can be kept; the point in hand is dragged. */
const { points, days } = defineProps<{ points: ReachPoint[]; days: number; at: ReachPoint }>()
const emit = defineEmits<{ days: [days: number] }>()
const W = 560
const H = 176
const left = 44
const bottom = 26
const known = computed(() => points.filter((p): p is ReachPoint & { days: number } => p.days != null))
const low = computed(() => known.value[0]?.days ?? 0)
const high = computed(() => Math.max(low.value + 1e-6, known.value.at(-1)?.days ?? 1))
const top = computed(() => Math.max(1e-6, ...known.value.map((p) => p.lostPerDay)))
const x = (d: number) =>
  left + ((W - left - 14) * (Math.min(high.value, Math.max(low.value, d)) - low.value)) / (high.value - low.value)
const y = (lost: number) => H - bottom - ((H - bottom - 14) * Math.max(0, lost)) / top.value
const path = computed(() =>
  known.value.map((p, i) => `${i ? 'L' : 'M'}${x(p.days).toFixed(1)} ${y(p.lostPerDay).toFixed(1)}`).join(''),
)

const dragging = ref(false)
function move(event: PointerEvent) {
  if (!dragging.value) return
  const box = (event.currentTarget as SVGElement).getBoundingClientRect()
  const share = (((event.clientX - box.left) / box.width) * W - left) / (W - left - 14)
  emit('days', Math.round(10 * (low.value + Math.max(0, Math.min(1, share)) * (high.value - low.value))) / 10)
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
  <svg
    :viewBox="`0 0 ${W} ${H}`"
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
    <line :x1="left" :x2="W - 14" :y1="H - bottom" :y2="H - bottom" class="axis" />
    <line :x1="left" :x2="left" y1="10" :y2="H - bottom" class="axis" />
    <path :d="path" class="curve" />
    <circle v-for="(p, i) in known" :key="i" :cx="x(p.days)" :cy="y(p.lostPerDay)" r="2" class="dot" />
    <line :x1="x(days)" :x2="x(days)" y1="14" :y2="H - bottom" class="hand" />
    <circle v-if="at.days != null" :cx="x(at.days)" :cy="y(at.lostPerDay)" r="6" class="point" />
    <text :x="left" :y="H - 8" class="label">{{ three(low) }} days now</text>
    <text :x="W - 14" :y="H - 8" text-anchor="end" class="label">{{ three(high) }} at most</text>
    <text :x="left - 5" y="18" text-anchor="end" class="label">{{ three(top) }}</text>
    <text :x="left - 38" y="8" class="label">events a day missed</text>
  </svg>
</template>

<style scoped>
.frontier {
  width: 100%;
  max-width: 620px;
  user-select: none;
  touch-action: none;
  cursor: ew-resize;
}

.axis {
  stroke: var(--soft);
}

.curve {
  fill: none;
  stroke: var(--base);
  stroke-width: 2;
}

.dot {
  fill: var(--base);
}

.hand {
  stroke: var(--motion);
  stroke-dasharray: 4 3;
}

.point {
  fill: var(--sheet);
  stroke: var(--motion);
  stroke-width: 2.5;
}

.label {
  fill: var(--soft);
  font-size: 11.5px;
}
</style>
