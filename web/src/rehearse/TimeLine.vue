<script setup lang="ts">
import { useElementSize, useScroll } from '@vueuse/core'
import { computed, onMounted, ref, shallowRef, useTemplateRef, watch, watchEffect } from 'vue'

import { useSite } from '../site/useSite'
import { palette } from '../theme/palette'
import { momentOf } from './clock'
import { EVENTS, firstFrom, NAMES, ROW, xOf } from './drawTimeline'
import { rowAt, topsOf } from './folding'
import { HEAD, paintTimeline, type Sheet } from './paintTimeline'
import { timelinePicture } from './timelinePicture'
import type { Rehearsing } from './useRehearsal'
import { count } from '../ui/figures'
import { growth, inside } from '../ui/place'

/** The days along the top, channels below with what would be on disk; only the rows in view are drawn. */
const { r, asked = undefined } = defineProps<{ r: Rehearsing; asked?: string }>()
const emit = defineEmits<{ moment: [channel: string, at: number] }>()
defineExpose({ picture: (title: string, under: string) => sheet.value && timelinePicture(sheet.value, title, under) })
const site = useSite()
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

/** Rows stay as high as they are while one is dragged along: what is under the pointer does not jump. */
const isDragging = ref(false)
const tops = shallowRef<number[]>([0])
watchEffect(() => {
  if (!isDragging.value) tops.value = topsOf(r.rows.value, r.view.value, r.shows, (k) => groupOf(k) !== '')
})

const sheet = computed<Sheet | undefined>(
  () =>
    r.data.value && {
      data: r.data.value,
      rows: r.rows.value,
      tops: tops.value,
      scale: scale.value,
      palette: palette.value,
      shows: r.shows,
      pointed: r.pointed.value?.event,
      asked,
      turned: r.turned.value,
      nameOf,
      groupOf,
    },
)
function draw() {
  const c = canvas.value?.getContext('2d')
  if (!c || !sheet.value) return
  const ratio = (devicePixelRatio || 1) * growth(canvas.value!)
  const [w, h] = [Math.round(width.value * ratio), Math.round(height.value * ratio)]
  if (canvas.value!.width !== w || canvas.value!.height !== h) {
    canvas.value!.width = w
    canvas.value!.height = h
  }
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  c.clearRect(0, 0, width.value, height.value)
  paintTimeline(c, sheet.value, y.value, height.value)
}
/** The row of what is pointed at comes into view. */
watch(r.pointed, (p) => {
  const k = r.rows.value.findIndex((c) => c.id === p?.channel)
  if (k < 0 || !box.value) return
  const [top, end] = [tops.value[k]!, tops.value[k + 1]!]
  if (top < y.value) box.value.scrollTop = top
  else if (end + HEAD > y.value + height.value) box.value.scrollTop = end + HEAD - height.value
})
onMounted(() => watchEffect(draw, { flush: 'post' }))

/** The moment and the row at a place of the pointer. */
function place(event: MouseEvent) {
  const { x, y: down } = inside(box.value!, event)
  const at = r.view.value.from + ((x - NAMES) / wide.value) * (r.view.value.to - r.view.value.from)
  const below = down - HEAD + y.value
  const k = rowAt(tops.value, below)
  const row = r.rows.value[k]
  const within = below - (tops.value[k] ?? 0)
  return {
    at: Math.max(0, Math.min(r.seconds.value, at)),
    row,
    isOver: down > HEAD,
    isFootage: within > EVENTS || tops.value[k + 1]! - tops.value[k]! < ROW,
  }
}
let dragging: { x: number; from: number; moved: boolean } | undefined
function press(event: PointerEvent) {
  if (event.button !== 0) return
  dragging = { x: event.clientX, from: r.view.value.from, moved: false }
}
function move(event: PointerEvent) {
  if (!dragging || !(event.buttons & 1)) return
  const by = ((dragging.x - event.clientX) / growth(box.value!) / wide.value) * (r.view.value.to - r.view.value.from)
  if (Math.abs(event.clientX - dragging.x) > 3) dragging.moved = true
  isDragging.value = dragging.moved
  if (dragging.moved) r.pan(dragging.from + by - r.view.value.from)
}
function letGo() {
  dragging = undefined
  isDragging.value = false
}
function release(event: PointerEvent) {
  const was = dragging
  letGo()
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
  return `${count(r.cameras.value.length, 'channel')} from ${momentOf(data, r.view.value.from)} to ${momentOf(data, r.view.value.to - 1)}. The list below says what is in view.`
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
    @pointercancel="letGo"
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
    <div :style="{ height: `${HEAD + tops.at(-1)! + 4}px` }" />
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
