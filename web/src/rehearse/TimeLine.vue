<script setup lang="ts">
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watch, watchEffect } from 'vue'

import { useSite } from '../site/useSite'
import { palette } from '../theme/palette'
import { clockOf, dayName, momentOf, secondsOf } from './clock'
import { drawName, drawRow, EVENTS, firstFrom, NAMES, ROW, STEPS, xOf } from './drawTimeline'
import type { Rehearsing } from './useRehearsal'

/** The days along the top, channels below with what would be on disk; only the rows in view are drawn. */
const { r } = defineProps<{ r: Rehearsing }>()
const emit = defineEmits<{ moment: [channel: string, at: number] }>()
const site = useSite()
const HEAD = 34
const box = useTemplateRef('box')
const canvas = useTemplateRef('canvas')
const { width, height } = useElementSize(box)
const { y } = useScroll(box)
const wide = computed(() => Math.max(50, width.value - NAMES))
const scale = computed(() => ({ ...r.view.value, width: wide.value }))
const headX = computed(() => xOf(scale.value, r.head.value))
function nameOf(at: number) {
  const { id, cause } = r.rows.value[at]!
  return cause ?? `${site.channels.get(id)?.number} ${site.channels.get(id)?.name ?? id}`
}
/** The group that begins at a row. */
function groupOf(at: number) {
  const of = (k: number) => r.rows.value[k]?.group ?? site.channels.get(r.rows.value[k]?.id ?? '')?.group ?? ''
  return at && of(at) === of(at - 1) ? '' : of(at)
}

const step = computed(() => STEPS.find((s) => (s / (scale.value.to - scale.value.from)) * wide.value > 62) ?? 86400)

function draw() {
  const c = canvas.value?.getContext('2d')
  const data = r.data.value
  if (!c || !data) return
  const ratio = devicePixelRatio || 1
  const [w, h] = [Math.round(width.value * ratio), Math.round(height.value * ratio)]
  if (canvas.value!.width !== w || canvas.value!.height !== h) {
    canvas.value!.width = w
    canvas.value!.height = h
  }
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  c.clearRect(0, 0, width.value, height.value)
  const p = palette.value
  const s = scale.value
  c.font = `12px ${getComputedStyle(document.body).fontFamily}`
  c.save()
  c.beginPath()
  c.rect(NAMES, 0, wide.value, height.value)
  c.clip()
  c.translate(NAMES, 0)
  for (const day of data.days) {
    const [left, right] = [xOf(s, day.from), xOf(s, day.from + day.hours * 3600)]
    if (right < 0 || left > wide.value) continue
    // Night, from ten to six.
    c.fillStyle = p.ink
    c.globalAlpha = 0.05
    c.fillRect(left, HEAD, xOf(s, secondsOf(day, 6 * 3600)) - left, height.value)
    const evening = xOf(s, secondsOf(day, 22 * 3600))
    c.fillRect(evening, HEAD, right - evening, height.value)
    c.globalAlpha = 1
    c.fillStyle = p.rule
    c.fillRect(left, 0, 1, height.value)
    c.fillStyle = day.special ? p.alarm : p.ink
    const odd = day.hours === 24 ? '' : `, ${day.hours} h`
    const text = `${dayName(day.date)}${day.special ? `, ${day.special}` : ''}${odd}`
    const room = right - Math.max(0, left)
    if (room > 20) c.fillText(room > 74 ? text : text.slice(0, 3), Math.max(4, left + 4), 13, Math.max(20, room - 6))
  }
  c.fillStyle = p.soft
  if (step.value < 86400)
    for (let at = Math.ceil(s.from / step.value) * step.value; at < s.to; at += step.value) {
      const x = xOf(s, at)
      c.fillRect(x, HEAD - 6, 1, 6)
      c.fillText(clockOf(data, at).slice(0, step.value < 60 ? 8 : 5), x + 3, HEAD - 7)
    }
  const first = Math.max(0, Math.floor(y.value / ROW))
  const last = Math.min(r.rows.value.length, Math.ceil((y.value + height.value) / ROW))
  c.save()
  c.beginPath()
  c.rect(0, HEAD, wide.value, height.value)
  c.clip()
  for (let k = first; k < last; k++) {
    const row = r.rows.value[k]!
    const top = HEAD + k * ROW - y.value
    c.fillStyle = p.rule
    c.fillRect(0, top + ROW - 1, wide.value, 1)
    drawRow(c, row, top, s, p, r.shows, r.pointed.value?.event, r.turned.value)
  }
  c.restore()
  c.restore()
  c.save()
  c.beginPath()
  c.rect(0, HEAD, NAMES - 6, height.value)
  c.clip()
  for (let k = first; k < last; k++) drawName(c, nameOf(k), groupOf(k), HEAD + k * ROW - y.value, p)
  c.restore()
}
/** The row of what is pointed at comes into view. */
watch(r.pointed, (p) => {
  const k = r.rows.value.findIndex((c) => c.id === p?.channel)
  if (k < 0 || !box.value) return
  const top = k * ROW
  if (top < y.value) box.value.scrollTop = top
  else if (top + ROW + HEAD > y.value + height.value) box.value.scrollTop = top + ROW + HEAD - height.value
})
onMounted(() => watchEffect(draw, { flush: 'post' }))

/** The moment and the row at a place of the pointer. */
function place(event: MouseEvent) {
  const b = box.value!.getBoundingClientRect()
  const at = r.view.value.from + ((event.clientX - b.left - NAMES) / wide.value) * (r.view.value.to - r.view.value.from)
  const row = r.rows.value[Math.floor((event.clientY - b.top - HEAD + y.value) / ROW)]
  const within = (event.clientY - b.top - HEAD + y.value) % ROW
  return {
    at: Math.max(0, Math.min(r.seconds.value, at)),
    row,
    isOver: event.clientY - b.top > HEAD,
    isFootage: within > EVENTS,
  }
}
let dragging: { x: number; from: number; moved: boolean } | undefined
function press(event: PointerEvent) {
  if (event.button !== 0) return
  dragging = { x: event.clientX, from: r.view.value.from, moved: false }
}
function move(event: PointerEvent) {
  if (!dragging || !(event.buttons & 1)) return
  const by = ((dragging.x - event.clientX) / wide.value) * (r.view.value.to - r.view.value.from)
  if (Math.abs(event.clientX - dragging.x) > 3) dragging.moved = true
  if (dragging.moved) r.pan(dragging.from + by - r.view.value.from)
}
function release(event: PointerEvent) {
  const was = dragging
  dragging = undefined
  if (!was || was.moved) return
  const { at, row, isOver, isFootage } = place(event)
  r.seek(at)
  if (!isOver || !row) return
  if (isFootage && !row.cause) {
    emit('moment', row.id, at)
    return
  }
  // An event near the pointer is meant, else the moment.
  const near = (7 / wide.value) * (r.view.value.to - r.view.value.from)
  let found = -1
  for (let k = firstFrom(row.start, at - near - 600); k < row.start.length && row.start[k]! < at + near; k++)
    if (
      at > row.start[k]! - near &&
      at < Math.max(row.start[k]! + row.length[k]!, row.start[k]! + near) &&
      r.shows(row.fate[k]!)
    )
      if (found < 0 || row.fate[k]! < row.fate[found]!) found = k
  if (found >= 0)
    r.point({
      channel: row.cause ? '' : row.id,
      event: row.event[found]!,
      start: row.start[found]!,
      length: row.length[found]!,
    })
  else if (!row.cause) emit('moment', row.id, at)
}
function wheel(event: WheelEvent) {
  if (event.ctrlKey || event.metaKey) {
    event.preventDefault()
    r.zoom(event.deltaY < 0 ? 1.35 : 1 / 1.35, place(event).at)
  } else if (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
    event.preventDefault()
    r.pan((((event.deltaX || event.deltaY) / wide.value) * (r.view.value.to - r.view.value.from)) / 1.5)
  }
}
function key(event: KeyboardEvent) {
  const part = (r.view.value.to - r.view.value.from) / 10
  const acts: Record<string, () => void> = {
    ArrowLeft: () => r.pan(-part),
    ArrowRight: () => r.pan(part),
    '+': () => r.zoom(1.6),
    '=': () => r.zoom(1.6),
    '-': () => r.zoom(1 / 1.6),
    0: r.showAll,
    n: () => void r.next((fate) => fate === 0),
    Home: () => r.show(0),
    End: () => r.show(r.seconds.value),
  }
  const act = acts[event.key]
  if (!act || event.ctrlKey || event.metaKey || event.altKey) return
  event.preventDefault()
  act()
}
const spoken = computed(() => {
  const data = r.data.value
  if (!data) return 'The days are being played'
  return `${r.cameras.value.length} channels from ${momentOf(data, r.view.value.from)} to ${momentOf(data, r.view.value.to - 1)}. The list below says what is in view.`
})
</script>

<template>
  <div
    ref="box"
    class="line"
    tabindex="0"
    role="img"
    :aria-label="spoken"
    data-test="timeline"
    @pointerdown="press"
    @pointermove="move"
    @pointerup="release"
    @pointercancel="dragging = undefined"
    @wheel="wheel"
    @keydown="key"
  >
    <div class="pinned">
      <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
      <!-- The play head moves by itself: nothing is drawn anew for it. -->
      <i
        v-if="headX >= 0 && headX <= wide"
        class="head"
        :style="{ transform: `translateX(${NAMES + headX}px)`, height: `${height - HEAD + 8}px`, top: `${HEAD - 8}px` }"
      />
    </div>
    <div :style="{ height: `${HEAD + r.rows.value.length * ROW + 4}px` }" />
  </div>
</template>

<style scoped>
.line {
  position: relative;
  overflow: hidden auto;
  height: 100%;
  background: var(--sheet);
  cursor: grab;
  touch-action: pan-y;
}

.pinned {
  position: sticky;
  top: 0;
  height: 0;
}

.head {
  position: absolute;
  left: 0;
  width: 1.5px;
  background: var(--short);
  pointer-events: none;
}

canvas {
  position: absolute;
  top: 0;
  left: 0;
  display: block;
}
</style>
