<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import { palette } from '../theme/palette'
import { dayName } from './clock'
import { NAMES } from './drawTimeline'
import { LOW, MISSED } from './rows'
import type { Rehearsing } from './useRehearsal'

/**
 * All days at once above the stretch that is looked at: wanted events by the hour, those that were missed as rings, and
 * the stretch as a frame that is dragged, or brought to where is pressed.
 */
const { r } = defineProps<{ r: Rehearsing }>()
const HEIGHT = 58
const BARS = 30 // how high the busiest hour is drawn
const TOP = 9
const box = useTemplateRef('box')
const canvas = useTemplateRef('canvas')
const { width } = useElementSize(box)
const x = (at: number) => (at / r.seconds.value) * width.value

/** Wanted events of each hour, and when some were missed: at most one a pixel is drawn. */
const hours = computed(() => {
  const all = new Array<number>(Math.ceil(r.seconds.value / 3600)).fill(0)
  const missed: number[] = []
  for (const c of r.rows.value)
    c.start.forEach((at, k) => {
      const fate = c.fate[k]!
      if (fate === MISSED) missed.push(at)
      if (fate <= LOW + 1) all[Math.floor(at / 3600)]!++
    })
  return { all, missed, most: Math.max(1, ...all) }
})

function draw() {
  const c = canvas.value?.getContext('2d')
  const data = r.data.value
  if (!c || !data || !width.value) return
  const ratio = devicePixelRatio || 1
  canvas.value!.width = Math.round(width.value * ratio)
  canvas.value!.height = HEIGHT * ratio
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  const p = palette.value
  c.font = `11.5px ${getComputedStyle(document.body).fontFamily}`
  const floor = TOP + BARS
  const { all, missed, most } = hours.value
  const wide = x(3600)
  c.fillStyle = p.motion
  c.globalAlpha = 0.65
  all.forEach((n, h) => {
    const high = n ? Math.max(1, (n / most) * (BARS - 4)) : 0
    c.fillRect(x(h * 3600), floor - high, Math.max(0.8, wide - 0.8), high)
  })
  c.globalAlpha = 1
  c.strokeStyle = p.short
  let last = -9
  for (const at of missed.sort((a, b) => a - b)) {
    const px = x(at)
    if (px - last < 1.5) continue
    last = px
    c.beginPath()
    c.arc(px, 5, 2.4, 0, 7)
    c.stroke()
  }
  for (const day of data.days) {
    c.fillStyle = p.rule
    c.fillRect(x(day.from), TOP, 1, HEIGHT)
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
const at = (event: PointerEvent) =>
  ((event.clientX - box.value!.getBoundingClientRect().left) / width.value) * r.seconds.value
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
    <span class="soft" aria-hidden="true">events an hour</span>
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

.over > span {
  position: absolute;
  left: 6px;
  top: 18px;
  font-size: var(--second);
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
