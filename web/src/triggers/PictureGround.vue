<script setup lang="ts">
import { computed } from 'vue'

import type { InPicture } from '../api/types'
import { three } from '../ui/figures'

/** The ground as it lies in the picture: horizon, distances, and beyond which a person is too small. */
const { sight } = defineProps<{ sight: InPicture['sight'] | undefined; width: number; height: number; unit: number }>()
const person = computed(() => sight?.reach.find((r) => r.id === 'person'))
</script>

<template>
  <g v-if="sight?.ground" aria-hidden="true">
    <rect :width="width" :height="Math.max(0, sight.ground.horizon) * height" class="sky" />
    <g v-for="l in sight.ground.lines" :key="l.metres">
      <path :d="`M0 ${l.y * height}H${width}`" class="far" />
      <text :x="width - 6 * unit" :y="l.y * height - 4 * unit" text-anchor="end">{{ l.metres }} m</text>
    </g>
    <g v-if="person" data-test="reach">
      <path :d="`M0 ${person.y * height}H${width}`" class="reach" />
      <text :x="6 * unit" :y="person.y * height - 4 * unit" class="strong">
        a person is too small beyond {{ three(person.metres) }} m
      </text>
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

.far {
  stroke: var(--rule);
  stroke-width: 2;
}

.reach {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 12 8;
}
</style>
