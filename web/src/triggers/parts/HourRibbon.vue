<script setup lang="ts">
import { computed, ref } from 'vue'

import { dayNames } from '../../time/week'

/**
 * A week by the hour: ink for what goes through, an outline for what comes in all, and the hours that are quiet washed
 * out. Pointed at, or with the arrows, it says its figures.
 */
const props = defineProps<{
  label: string
  ink: number[]
  outline?: number[]
  quiet?: boolean[]
  line?: number // a level to hold it against
  say: (hour: number) => string
}>()
const H = 46
const all = computed(() => props.outline ?? props.ink)
const top = computed(() => Math.max(1e-9, props.line ?? 0, ...all.value, ...props.ink) * 1.06)
const y = (v: number) => H - (H * v) / top.value
const steps = (list: number[]) =>
  list.map((v, i) => `${i ? 'L' : 'M'}${i} ${y(v).toFixed(2)}H${i + 1}`).join('') + `L168 ${H}`
const area = computed(() => `${steps(props.ink)}H0Z`)
const contour = computed(() => steps(all.value))
/** Quiet hours, joined to stretches. */
const dark = computed(() => {
  const out: { from: number; to: number }[] = []
  for (const [i, q] of (props.quiet ?? []).entries()) {
    if (!q) continue
    const last = out.at(-1)
    if (last?.to === i) last.to = i + 1
    else out.push({ from: i, to: i + 1 })
  }
  return out
})

const at = ref<number>()
function point(event: PointerEvent) {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  at.value = Math.max(0, Math.min(167, Math.floor(((event.clientX - box.left) / box.width) * 168)))
}
function key(event: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -24, ArrowDown: 24 }[event.key]
  if (!by) return
  at.value = ((at.value ?? -1) + by + 168) % 168
  event.preventDefault()
}
const said = computed(() => {
  if (at.value === undefined) return ''
  const hour = at.value % 24
  return `${dayNames[Math.floor(at.value / 24)]} ${hour}:00 to ${hour + 1}:00: ${props.say(at.value)}`
})
</script>

<template>
  <div class="ribbon">
    <div
      class="week"
      tabindex="0"
      role="img"
      :aria-label="`${label}. ${said || 'Arrows tell an hour.'}`"
      @pointermove="point"
      @pointerleave="at = undefined"
      @blur="at = undefined"
      @keydown="key"
    >
      <svg :viewBox="`0 0 168 ${H}`" preserveAspectRatio="none" aria-hidden="true">
        <rect v-for="d in dark" :key="d.from" :x="d.from" y="0" :width="d.to - d.from" :height="H" class="quiet" />
        <path :d="area" class="ink" />
        <path v-if="outline" :d="contour" class="outline" />
        <line v-if="line" x1="0" x2="168" :y1="y(line)" :y2="y(line)" class="level" />
        <line v-for="d in 6" :key="d" :x1="24 * d" :x2="24 * d" y1="0" :y2="H" class="day" />
        <rect v-if="at !== undefined" :x="at" y="0" width="1" :height="H" class="at" />
      </svg>
    </div>
    <p class="said soft" aria-live="polite">
      <template v-if="said">{{ said }}</template>
      <span v-else class="days"
        ><span v-for="d in dayNames" :key="d">{{ d.slice(0, 3) }}</span></span
      >
    </p>
  </div>
</template>

<style scoped>
.week {
  height: clamp(46px, calc(6vh / var(--grow)), 96px);
  border-bottom: 1px solid var(--soft);
}

svg {
  display: block;
  width: 100%;
  height: 100%;
}

.ink {
  fill: color-mix(in srgb, var(--ink) 60%, transparent);
}

.outline,
.level,
.day {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}

.level {
  stroke: var(--short);
  stroke-dasharray: 5 3;
}

.day {
  stroke: var(--rule);
}

.quiet {
  fill: color-mix(in srgb, var(--soft) 12%, transparent);
}

.at {
  fill: color-mix(in srgb, var(--ink) 35%, transparent);
}

.said {
  margin: 0;
  font-size: var(--axis);
  min-height: 17px;
}

.days {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
}
</style>
