<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef, watch } from 'vue'

import { apart } from './apart'
import { cellsName, cellsPath } from './cells'
import { plain } from './makeThing'
import PersonFigure from '../../../drawing/PersonFigure.vue'
import PictureGround from './PictureGround.vue'
import ReachLines from './ReachLines.vue'
import StandingOne from './StandingOne.vue'
import type { Brush } from './useBrush'
import { useCorners } from './useCorners'
import { labelAt } from './label'
import { keyOf, type Point, type Thing } from './things'
import type { Picture } from './usePicture'
import WalkLine from './WalkLine.vue'

/** The picture with what is drawn in it. */
const { picture, name, brush, aspect } = defineProps<{
  picture: Picture
  name: string
  brush: Brush
  aspect: number // width over height
  still: string // where the still is to be had; empty for none
}>()
const emit = defineEmits<{ missing: [] }>()
const { things, picked, tool, laid, seen, areas } = picture
const board = useTemplateRef<SVGElement>('board')
const corners = useCorners(board, picture)
const { height: pixels } = useElementSize(board)

const height = 1000
const width = computed(() => height * aspect)
const unit = computed(() => height / Math.max(pixels.value, 100)) // of the drawing, for a pixel of the screen
const at = (p: number[]) => `${p[0]! * width.value},${p[1]! * height}`
const path = (points: number[][]) => points.map(at).join(' ')
const of = (...kinds: Thing['kind'][]) => things.value.filter((t) => kinds.includes(t.kind))
const isIgnored = (t: Thing) => areas.value.some((a) => a.id === t.id && a.ignore)
const look = (t: Thing) => (t.kind === 'patch' ? 'patch' : isIgnored(t) ? 'ignore' : 'watch')
/** Where a thing's name stands: at its left, low. */
const named = (t: Thing): Point =>
  t.cells ? cellsName(t.cells) : [Math.min(...t.points.map((p) => p[0])), Math.max(...t.points.map((p) => p[1]))]
/** Names of things that begin at one place stand one above the other. */
const nameAt = (t: Thing) => {
  const same = of('area', 'patch').filter(
    (o) => Math.hypot(named(o)[0] - named(t)[0], named(o)[1] - named(t)[1]) < 0.03,
  )
  const [x, y] = named(t)
  const up = 6 + 15 * same.indexOf(same.find((o) => keyOf(o) === keyOf(t))!)
  return labelAt(
    t.name,
    x * width.value + 6 * unit.value,
    y * height - up * unit.value,
    width.value,
    height,
    unit.value,
  )
}
const isHere = (t: Thing) => keyOf(t) === picked.value
const percent = (v: number) => `${Math.round(v * 100)} %`
const cornerName = (t: Thing, i: number) => (t.kind !== 'person' ? `Corner ${i + 1}` : i ? 'Head' : 'Feet')

const spread = () => board.value && apart(board.value)
watch(() => [things.value, seen.value, picked.value, picture.moment.value, pixels.value], spread, { flush: 'post' })
void document.fonts.ready.then(spread) // letters have other widths then

/** A click lays a point of what is being drawn; the first point again ends it. */
function lay(event: MouseEvent) {
  if (tool.value === 'brush' || picture.stand.value) return undefined
  if (!tool.value) return picture.pick('')
  const p = corners.place(event)
  // About as tall as a person is where the horizon is a fifth from the top; who knows better drags the head.
  if (tool.value === 'person') return picture.finish([p, [p[0], p[1] - 0.38 * Math.max(0.08, p[1] - 0.2)]])
  const first = laid.value[0]
  const isClosed = first && laid.value.length > 2 && Math.hypot((p[0] - first[0]) * aspect, p[1] - first[1]) < 0.03
  if (isClosed) picture.finish()
  else picture.lay([...laid.value, p])
}

const pick = (event: MouseEvent, t: Thing) => {
  if (tool.value || picture.stand.value) lay(event)
  else picture.pick(keyOf(t))
}

/** Pointing along the walk that is picked shows the walker there. */
function along(event: MouseEvent, t: Thing) {
  const [x, y] = corners.place(event)
  const track = seen.value?.sight.walks.find((w) => w.id === t.id)?.track ?? []
  const far = track.map((b) => Math.hypot(((b.left + b.right) / 2 - x) * aspect, b.bottom - y))
  picture.look(far.indexOf(Math.min(...far)))
}

function press(event: PointerEvent) {
  if (tool.value !== 'brush' || event.button !== 0) return
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  brush.begin(corners.place(event), event.altKey)
}
function move(event: PointerEvent) {
  corners.move(event)
  if (tool.value === 'brush') brush.move(corners.place(event))
}
function release() {
  corners.release()
  brush.end()
}

function key(event: KeyboardEvent) {
  if (event.key === 'Escape') {
    if (!corners.giveUp() && !brush.giveUp()) {
      picture.standAt()
      picture.letGo()
    }
  } else if (tool.value === 'brush') {
    if (event.key === 'Enter') picture.letGo()
    else if (!brush.key(event)) return
  } else if (event.key === 'Enter' && tool.value) picture.finish(laid.value.length ? laid.value : plain[tool.value])
  else if (event.key === 'Backspace' && laid.value.length) picture.lay(laid.value.slice(0, -1))
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="frame" :style="{ '--aspect': aspect, '--pixel': unit }">
    <svg
      ref="board"
      class="board"
      :class="{ drawing: tool }"
      :viewBox="`0 0 ${width} ${height}`"
      preserveAspectRatio="none"
      tabindex="0"
      role="group"
      :aria-label="`What ${name} sees: ${things.map((t) => t.name).join(', ') || 'nothing is drawn yet'}`"
      data-test="board"
      @pointerdown="press"
      @pointermove="move"
      @pointerup="release"
      @pointercancel="release"
      @click="lay"
      @dblclick="picture.finish()"
      @keydown="key"
    >
      <defs>
        <pattern id="comb" width="9" height="9" patternUnits="userSpaceOnUse"><path d="M1 0V9" class="comb" /></pattern>
        <pattern id="dots" width="16" height="16" patternUnits="userSpaceOnUse">
          <circle cx="5" cy="5" r="2.6" class="dot" />
        </pattern>
      </defs>
      <image
        v-if="still"
        :href="still"
        :width="width"
        :height="height"
        preserveAspectRatio="none"
        class="still"
        data-test="still"
        @error="emit('missing')"
      />
      <PictureGround :bare="!still" :sight="seen?.sight" :width="width" :height="height" :unit="unit" />
      <g
        v-for="t in of('area', 'patch')"
        :key="keyOf(t)"
        :class="[look(t), { here: isHere(t) }]"
        :data-thing="keyOf(t)"
      >
        <path v-if="t.cells" :d="cellsPath(t.cells, width, height)" class="cells" @click.stop="pick($event, t)" />
        <polygon v-else :points="path(t.points)" @click.stop="pick($event, t)" />
        <text v-bind="nameAt(t)" class="strong">{{ t.name }}</text>
      </g>
      <g
        v-for="t in of('walk')"
        :key="keyOf(t)"
        :data-thing="keyOf(t)"
        @click.stop="pick($event, t)"
        @pointermove="isHere(t) && along($event, t)"
      >
        <WalkLine
          :line="path(t.points)"
          :seen="seen?.sight.walks.find((w) => w.id === t.id)"
          :here="isHere(t)"
          :moment="picture.moment.value"
          :width="width"
          :height="height"
          :unit="unit"
        />
      </g>
      <ReachLines :sight="seen?.sight" :width="width" :height="height" :unit="unit" />
      <PersonFigure
        v-for="t in of('person')"
        :key="keyOf(t)"
        :feet="t.points[0]!"
        :head="t.points[1]!"
        :width="width"
        :height="height"
      />
      <template v-for="t in things" :key="`corners ${keyOf(t)}`">
        <template v-if="isHere(t) || t.kind === 'person'">
          <rect
            v-for="(p, i) in t.points"
            :key="`dot ${i}`"
            :x="p[0] * width - 5 * unit"
            :y="p[1] * height - 5 * unit"
            :width="10 * unit"
            :height="10 * unit"
            :rx="t.kind === 'person' ? 0 : 5 * unit"
            class="dot-corner"
          />
          <circle
            v-for="(p, i) in t.points"
            :key="i"
            :cx="p[0] * width"
            :cy="p[1] * height"
            :r="12 * unit"
            class="corner"
            tabindex="0"
            role="button"
            :data-corner="`${keyOf(t)} ${i}`"
            :aria-label="`${cornerName(t, i)} of ${t.name}, at ${percent(p[0])} and ${percent(p[1])}; arrows move it`"
            @pointerdown="corners.grab($event, t, i)"
            @click.stop="tool && lay($event)"
            @keydown="corners.nudge($event, t, i)"
            @keyup="corners.settle(t, i)"
            @blur="corners.settle(t, i)"
          />
        </template>
      </template>
      <StandingOne :picture="picture" :place="corners.place" :width="width" :height="height" />
      <rect
        v-if="tool === 'brush' && brush.at.value"
        :x="((brush.at.value.column - ((brush.size.value - 1) >> 1)) * width) / brush.cells.value.columns"
        :y="((brush.at.value.row - ((brush.size.value - 1) >> 1)) * height) / brush.cells.value.rows"
        :width="(brush.size.value * width) / brush.cells.value.columns"
        :height="(brush.size.value * height) / brush.cells.value.rows"
        class="brush"
      />
      <polyline
        v-if="laid.length"
        :points="path([...laid, ...(corners.pointer.value ? [corners.pointer.value] : [])])"
        class="laid"
      />
    </svg>
    <slot />
  </div>
</template>

<style scoped src="./board.css"></style>
