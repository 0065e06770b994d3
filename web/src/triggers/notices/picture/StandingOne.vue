<script setup lang="ts">
import { computed } from 'vue'

import type { Point } from './things'
import type { Picture } from './usePicture'

/** Somebody who stands in the picture where they should just be noticed: dragged, or moved by arrows. */
const { picture, place } = defineProps<{
  picture: Picture
  place: (event: MouseEvent) => Point
  width: number
  height: number
}>()
const { stand, seen } = picture
const box = computed(() => (stand.value ? seen.value?.standing?.box : undefined))

function grab(event: PointerEvent) {
  event.stopPropagation()
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
}
function drag(event: PointerEvent) {
  if (!(event.currentTarget as Element).hasPointerCapture(event.pointerId)) return
  event.stopPropagation()
  picture.standAt({ ...stand.value!, feet: place(event) })
}
function nudge(event: KeyboardEvent) {
  const step = (event.shiftKey ? 10 : 1) / 500
  const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key]
  if (!by) return
  event.preventDefault()
  event.stopPropagation()
  const [x, y] = stand.value!.feet as Point
  picture.standAt({ ...stand.value!, feet: [x + by[0]!, y + by[1]!] })
}
</script>

<template>
  <g v-if="stand" data-test="standing">
    <rect
      v-if="box"
      :x="box.left * width"
      :y="box.top * height"
      :width="(box.right - box.left) * width"
      :height="(box.bottom - box.top) * height"
      rx="6"
    />
    <circle
      :cx="stand.feet![0]! * width"
      :cy="stand.feet![1]! * height"
      :r="height / 45"
      tabindex="0"
      role="button"
      aria-label="Where they stand; arrows move them"
      data-test="stand"
      @pointerdown="grab"
      @pointermove="drag"
      @click.stop
      @keydown="nudge"
    />
  </g>
</template>

<style scoped>
rect {
  pointer-events: none;
  fill: color-mix(in srgb, var(--base) 45%, transparent);
  stroke: var(--base);
  stroke-width: 3;
}

circle {
  fill: color-mix(in srgb, var(--sheet) 60%, transparent);
  stroke: var(--base);
  stroke-width: 3;
  cursor: move;
}
</style>
