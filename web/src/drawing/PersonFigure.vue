<script setup lang="ts">
import { computed } from 'vue'

/** Somebody of 1.7 m who stands in the picture, from the feet to the top of the head. */
type Point = [number, number] // across and down, as shares of the picture
const { feet, head, width, height } = defineProps<{ feet: Point; head: Point; width: number; height: number }>()
const tall = computed(() => Math.max(1, (feet[1] - head[1]) * height))
const outline = computed(() => {
  const [x, top, t] = [feet[0] * width, head[1] * height, tall.value]
  const at = (across: number, down: number) => `${x + across * t},${top + down * t}`
  const half: [number, number][] = [
    [0.05, 0.16],
    [0.13, 0.19],
    [0.13, 0.47],
    [0.09, 0.47],
    [0.09, 1],
    [0.02, 1],
    [0.02, 0.54],
  ]
  const right = half.map(([a, d]) => at(a, d))
  const left = half.map(([a, d]) => at(-a, d)).reverse()
  return [...right, ...left].join(' ')
})
</script>

<template>
  <g class="figure">
    <circle :cx="feet[0] * width" :cy="head[1] * height + 0.075 * tall" :r="0.072 * tall" />
    <polygon :points="outline" />
  </g>
</template>

<style scoped>
.figure > * {
  fill: var(--base);
  stroke: none;
  opacity: 0.5;
  pointer-events: none;
}
</style>
