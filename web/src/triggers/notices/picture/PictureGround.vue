<script setup lang="ts">
import { computed } from 'vue'

import type { InPicture } from '../../../api/types'

/** The ground as it lies in the picture: distances, and without a still the horizon and lines that run away from us. */
const { sight, width, height, unit } = defineProps<{
  sight: InPicture['sight'] | undefined
  bare: boolean // there is no still under it
  width: number
  height: number
  unit: number
}>()
/** Where lines on the ground that run away from the camera leave the picture, a few metres apart at its foot. */
const ground = computed(() => sight?.ground ?? sight?.assumed)
const away = computed(() => {
  const g = ground.value
  if (!g || g.horizon >= 1) return []
  const [foot, vanish] = [height, g.horizon * height]
  const apart = (g.focal / ((g.cameraMetres * g.focal) / (1 - g.horizon)) / g.aspect) * width * 2 // two metres there
  const from = vanish < 0 ? 0 : vanish
  const lines = Math.min(40, Math.ceil((2.5 * width) / apart))
  return Array.from({ length: 2 * lines + 1 }, (_, i) => {
    const x = width / 2 + (i - lines) * apart
    const top = width / 2 + ((x - width / 2) * (from - vanish)) / (foot - vanish)
    return `M${x} ${foot}L${top} ${from}`
  })
})
/** Distances whose names have room between each other. */
const lines = computed(() => {
  let last = Infinity
  return (sight?.ground?.lines ?? []).map((l) => {
    const isNamed = last - l.y * height > 18 * unit
    if (isNamed) last = l.y * height
    return { ...l, isNamed }
  })
})
</script>

<template>
  <g v-if="ground" aria-hidden="true" :class="{ assumed: !sight?.ground }">
    <template v-if="bare">
      <rect :width="width" :height="Math.max(0, ground.horizon) * height" class="sky" />
      <path v-for="d in away" :key="d" :d="d" class="far" />
    </template>
    <g v-for="l in lines" :key="l.metres">
      <path :d="`M0 ${l.y * height}H${width}`" class="far" />
      <text v-if="l.isNamed" :x="width - 6 * unit" :y="l.y * height - 4 * unit" text-anchor="end"
        >{{ l.metres }} m</text
      >
    </g>
  </g>
</template>

<style scoped>
.sky {
  fill: var(--sheet);
}

path {
  fill: none;
}

.assumed {
  opacity: 0.5;
}

.far {
  stroke: var(--rule);
  stroke-width: 2;
}
</style>
