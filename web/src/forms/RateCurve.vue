<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef, watch, watchEffect } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Activity, Hours } from '../api/types'
import { palette } from '../theme/palette'
import { paintedOver, spansOf, valueAt } from '../time/echo'
import { clock, DAY, dayNames, WEEK, weekdays, type Span } from '../time/week'
import { three } from '../ui/figures'
import { daysOf, type DaysMeant } from './daysMeant'
import { growth, inside } from '../ui/place'

/**
 * The week of an activity as a curve of events an hour. Dragging up and down sets an hour, dragging on sets the hours
 * that are crossed; with the keyboard the left and right arrows choose the hour, up and down set it.
 */
const props = defineProps<{ activity: Activity; meant: DaysMeant; readonly?: boolean; height?: number }>()
const emit = defineEmits<{ paint: [hours: Hours[], perHour: number] }>()
const canvas = useTemplateRef('canvas')
const { width } = useElementSize(canvas)
const height = computed(() => props.height ?? 190)

const hand = ref<{ from: number; to: number; perHour: number }>() // hours of the week, the last inclusive
const at = ref(12) // the hour that the keyboard is on

/** The rates as the core has them; what is drawn over them stays until those with it are there. */
const { data: rates } = useAnswer(
  () => props.activity,
  () => api.POST('/api/activities/rates', { body: props.activity }),
  { keep: true },
)
const echo = ref<{ spans: Span[]; perHour: number }>()
watch(rates, () => (echo.value = undefined))
const steps = computed(() => (rates.value?.steps ?? []).map((s) => ({ from: s.from, value: s.perHour })))
const highest = computed(() => Math.max(1, rates.value?.mostPerHour ?? 1))
const held = ref(0) // the scale stays as it is while dragging
const top = computed(() => {
  const most = held.value || highest.value * 1.25
  const step = 10 ** Math.floor(Math.log10(most))
  return ([1, 1.5, 2, 3, 4, 5, 6, 8, 10].find((k) => k * step >= most) ?? 10) * step
})

/** The hours that the hand means. */
function hoursMeant(from: number, to: number): Hours[] {
  const day = Math.floor(from / 24)
  const last = Math.min(to, day * 24 + 23)
  const days = daysOf(day, props.meant).map((d) => weekdays[d]!)
  return [{ days, from: clock((from % 24) * 60), to: clock((last % 24) * 60 + 60) }]
}

const shown = computed(() => {
  const h = hand.value
  const over = h ? { spans: spansOf(hoursMeant(h.from, h.to)), perHour: h.perHour } : echo.value
  return over ? paintedOver(steps.value, over.spans, over.perHour) : steps.value
})

onMounted(() => {
  watchEffect(
    () => {
      if (!canvas.value || width.value < 1) return
      const ratio = (devicePixelRatio || 1) * growth(canvas.value!)
      canvas.value.width = Math.round(width.value * ratio)
      canvas.value.height = Math.round(height.value * ratio)
      const c = canvas.value.getContext('2d')!
      c.setTransform(ratio, 0, 0, ratio, 0, 0)
      const { ink, rule, soft } = palette.value
      const floor = height.value - 16
      const x = (minute: number) => (minute / WEEK) * width.value
      c.font = `11px ${getComputedStyle(document.body).fontFamily}`
      for (let d = 0; d < 7; d++) {
        c.fillStyle = rule
        c.fillRect(Math.round(x(d * DAY)), 0, 1, floor)
        c.fillStyle = soft
        c.fillText(dayNames[d]!.slice(0, 3), x(d * DAY) + 4, height.value - 3)
      }
      c.beginPath()
      c.moveTo(0, floor)
      shown.value.forEach((s, i) => {
        const y = floor - (s.value / top.value) * (floor - 6)
        c.lineTo(x(s.from), y)
        c.lineTo(x(shown.value[i + 1]?.from ?? WEEK), y)
      })
      c.lineTo(width.value, floor)
      c.closePath()
      c.globalAlpha = 0.16
      c.fillStyle = ink
      c.fill()
      c.globalAlpha = 1
      c.strokeStyle = ink
      c.lineWidth = 1.5
      c.stroke()
    },
    { flush: 'post' },
  )
})

function place(event: PointerEvent) {
  const box = canvas.value!.getBoundingClientRect()
  const hour = Math.max(0, Math.min(167, Math.floor(((event.clientX - box.left) / box.width) * 168)))
  const raw = Math.max(0, ((height.value - 16 - inside(canvas.value!, event).y) / (height.value - 22)) * top.value)
  return { hour, perHour: Number(raw.toPrecision(2)) }
}

function down(event: PointerEvent) {
  if (props.readonly || event.button !== 0) return
  canvas.value!.setPointerCapture(event.pointerId)
  held.value = highest.value * 1.25
  const p = place(event)
  at.value = p.hour
  hand.value = { from: p.hour, to: p.hour, perHour: p.perHour }
}

function move(event: PointerEvent) {
  if (!hand.value) return
  const p = place(event)
  hand.value = { from: Math.min(at.value, p.hour), to: Math.max(at.value, p.hour), perHour: p.perHour }
}

function up() {
  const h = hand.value
  leave()
  if (h) paint(h.from, h.to, h.perHour)
}

function paint(from: number, to: number, perHour: number) {
  const hours = hoursMeant(from, to)
  echo.value = { spans: spansOf(hours), perHour }
  emit('paint', hours, perHour)
}

function leave() {
  hand.value = undefined
  held.value = 0
}

const now = computed(() => (hand.value ? hand.value.perHour : (valueAt(shown.value, at.value * 60) ?? 0)))

function key(event: KeyboardEvent) {
  const step = now.value >= 20 ? 5 : now.value >= 5 ? 1 : now.value >= 1 ? 0.5 : 0.1
  if (event.key === 'ArrowLeft') at.value = (at.value + 167) % 168
  else if (event.key === 'ArrowRight') at.value = (at.value + 1) % 168
  else if (event.key === 'Escape' && hand.value) leave()
  else if (!props.readonly && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    const perHour = Number(Math.max(0, now.value + (event.key === 'ArrowUp' ? step : -step)).toPrecision(3))
    held.value ||= highest.value * 1.25
    hand.value = { from: at.value, to: at.value, perHour } // until the arrow is let go
  } else return
  event.preventDefault()
}

const said = computed(
  () => `${dayNames[Math.floor(at.value / 24)]} ${clock((at.value % 24) * 60)}: ${three(now.value)} an hour`,
)
</script>

<template>
  <div
    class="curve"
    tabindex="0"
    role="slider"
    aria-label="Events an hour, by hour of the week"
    :aria-valuenow="now"
    aria-valuemin="0"
    :aria-valuemax="Math.max(top, now)"
    :aria-valuetext="said"
    :aria-readonly="readonly"
    data-test="rate-curve"
    @keydown="key"
    @keyup.up="up"
    @keyup.down="up"
    @blur="up"
  >
    <canvas
      ref="canvas"
      :style="{ height: `${height}px` }"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="leave"
    />
    <span class="scale soft">{{ three(top) }} an hour</span>
    <span v-if="!readonly" class="said">{{ said }}</span>
    <span v-if="!readonly" class="cursor" :style="{ left: `${(100 * at) / 168}%`, width: `${100 / 168}%` }" />
  </div>
</template>

<style scoped>
.curve {
  position: relative;
  container-type: inline-size;
}

canvas {
  display: block;
  width: 100%;
  cursor: ns-resize;
  touch-action: none;
}

.scale,
.said {
  position: absolute;
  top: 1px;
  font-size: var(--axis);
  pointer-events: none;
}

.scale {
  left: 5px;
}

.said {
  right: 5px;
  font-weight: 600;
}

/* Beside the scale there is no room for it. */
@container (max-width: 300px) {
  .said {
    top: 14px;
  }
}

.cursor {
  position: absolute;
  top: 0;
  bottom: 16px;
  background: color-mix(in srgb, var(--base) 16%, transparent);
  pointer-events: none;
}
</style>
