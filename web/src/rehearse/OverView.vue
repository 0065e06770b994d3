<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import { palette } from '../theme/palette'
import { count } from '../ui/figures'
import { dayName } from './clock'
import { NAMES } from './drawTimeline'
import { LOW, MISSED } from './rows'
import type { Rehearsing } from './useRehearsal'
import { growth, inside } from '../ui/place'

/**
 * All days at once above the stretch that is looked at: wanted events by the hour, those that were missed of them below
 * the line, and the stretch as a frame that is dragged, or brought to where is pressed.
 */
const { r } = defineProps<{ r: Rehearsing }>()
const HEIGHT = 58
const FLOOR = 28 // above it stand the events of each hour, and below it those that were missed of them
const MISS = 9 // how far down the hour with most missed is drawn
const box = useTemplateRef('box')
const canvas = useTemplateRef('canvas')
const { width } = useElementSize(box)
const x = (at: number) => (at / r.seconds.value) * width.value

/** Wanted events of each hour, and those that were missed of them. */
const hours = computed(() => {
  const all = new Array<number>(Math.ceil(r.seconds.value / 3600)).fill(0)
  const missed = all.map(() => 0)
  for (const c of r.rows.value)
    c.start.forEach((at, k) => {
      const fate = c.fate[k]!
      if (fate === MISSED) missed[Math.floor(at / 3600)]!++
      if (fate <= LOW + 1) all[Math.floor(at / 3600)]!++
    })
  return { all, missed, most: Math.max(1, ...all), worst: Math.max(0, ...missed) }
})

function draw() {
  const c = canvas.value?.getContext('2d')
  const data = r.data.value
  if (!c || !data || !width.value) return
  const ratio = (devicePixelRatio || 1) * growth(canvas.value!)
  canvas.value!.width = Math.round(width.value * ratio)
  canvas.value!.height = HEIGHT * ratio
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  const p = palette.value
  c.font = `11px ${getComputedStyle(document.body).fontFamily}`
  const { all, missed, most, worst } = hours.value
  const wide = Math.max(0.8, x(3600) - 0.8)
  c.fillStyle = p.soft
  all.forEach((n, h) => {
    const high = n ? Math.max(1, (n / most) * (FLOOR - 3)) : 0
    c.fillRect(x(h * 3600), FLOOR - high, wide, high)
  })
  c.fillStyle = p.short
  missed.forEach((n, h) => n && c.fillRect(x(h * 3600), FLOOR + 1, wide, Math.max(1.5, (n / worst) * MISS)))
  for (const day of data.days) {
    c.fillStyle = p.rule
    c.fillRect(x(day.from), 2, 1, HEIGHT)
    c.fillStyle = day.special ? p.alarm : p.soft
    const room = x(day.hours * 3600)
    const text = `${dayName(day.date)}${day.special ? `, ${day.special}` : ''}`
    if (room > 26) c.fillText(room > 66 ? text : text.slice(0, 3), x(day.from) + 4, HEIGHT - 5, room - 6)
  }
}
onMounted(() => watchEffect(draw, { flush: 'post' }))

const frame = computed(() => {
  const { from, to } = r.view.value
  return { left: `${x(from)}px`, width: `${Math.max(6, x(to) - x(from))}px` }
})
const at = (event: PointerEvent) => (inside(box.value!, event).x / width.value) * r.seconds.value
let held = 0 // where in the frame it is held, seconds from its middle
function press(event: PointerEvent) {
  if (event.button !== 0) return
  box.value!.setPointerCapture(event.pointerId)
  const { from, to } = r.view.value
  const here = at(event)
  const isInside = here >= from && here <= to
  held = isInside ? here - (from + to) / 2 : 0
  if (!isInside) r.show(here)
}
function move(event: PointerEvent) {
  if (box.value!.hasPointerCapture(event.pointerId)) r.show(at(event) - held)
}
</script>

<template>
  <div class="over" :style="{ paddingLeft: `${NAMES}px` }">
    <span v-if="r.data.value" class="soft most" aria-hidden="true"
      >busiest hour: {{ count(hours.most, 'event') }}<br /><span class="short"
        >worst hour: {{ hours.worst }} missed</span
      ></span
    >
    <div
      ref="box"
      class="strip"
      aria-hidden="true"
      data-test="overview"
      @pointerdown="press"
      @pointermove="move"
      @dblclick="r.showAll"
    >
      <canvas ref="canvas" :style="{ width: `${width}px`, height: `${HEIGHT}px` }" />
      <i class="frame" :style="frame" />
    </div>
  </div>
</template>

<style scoped>
.over {
  position: relative;
  border-bottom: 1px solid var(--rule);
}

.most {
  position: absolute;
  left: 6px;
  top: 8px;
  font-size: var(--axis);
}

.strip {
  position: relative;
  height: 58px;
  overflow: hidden;
  cursor: pointer;
  touch-action: none;
}

canvas {
  display: block;
}

.frame {
  position: absolute;
  top: 1px;
  height: 40px;
  border: 1.5px solid var(--ink);
  background: color-mix(in srgb, var(--ink) 5%, transparent);
  pointer-events: none;
}
</style>
