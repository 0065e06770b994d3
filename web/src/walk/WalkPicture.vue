<script setup lang="ts">
import { computed } from 'vue'

import type { SiteWalk, WalkCamera } from '../api/types'
import { useTaken } from './useTaken'

/** The camera's snapshot with its areas, and the walk: where it starts, and where the sign should come. */
const props = defineProps<{ camera: WalkCamera; walk?: SiteWalk }>()
const { picture } = useTaken()
const width = 400
const height = computed(() => width / props.camera.aspect)
const at = (x: number, y: number) => `${(x * width).toFixed(1)},${(y * height.value).toFixed(1)}`
const track = computed(() => props.walk?.track.map((p) => at(p.x, p.y)).join(' ') ?? '')
const start = computed(() => props.walk?.track[0])
const url = computed(() => picture(props.camera))
/** A name beside a point, on the side where there is room. */
const beside = (x: number) => ({ dx: x > 0.6 ? -8 : 8, anchor: x > 0.6 ? 'end' : 'start' }) as const
const clamp = (y: number) => Math.min(height.value - 6, Math.max(14, y * height.value))
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    :aria-label="`Picture of ${camera.name}${walk ? ' with the walk ' + walk.name : ''}`"
  >
    <rect :width="width" :height="height" class="ground" />
    <image v-if="url" :href="url" :width="width" :height="height" preserveAspectRatio="none" class="still" />
    <polygon
      v-for="(a, i) in camera.areas"
      :key="i"
      :points="a.points.map(([x, y]) => at(x!, y!)).join(' ')"
      :class="a.ignore ? 'ignored' : 'watched'"
    />
    <template v-if="walk && start">
      <polyline :points="track" class="way back" />
      <polyline :points="track" class="way" />
      <circle :cx="start.x * width" :cy="clamp(start.y)" r="6" class="start" />
      <text :x="start.x * width + beside(start.x).dx" :y="clamp(start.y) - 8" :text-anchor="beside(start.x).anchor">
        start here
      </text>
      <template v-if="walk.noticed">
        <circle :cx="walk.noticed.x * width" :cy="clamp(walk.noticed.y)" r="7" class="noticed" />
        <text
          :x="walk.noticed.x * width + beside(walk.noticed.x).dx"
          :y="clamp(walk.noticed.y) + 18"
          :text-anchor="beside(walk.noticed.x).anchor"
        >
          sign here, {{ walk.noticed.seconds.toFixed(1) }} s
        </text>
      </template>
    </template>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  display: block;
  border-radius: 6px;
}

.ground {
  fill: #d9d5cd;
}

.still {
  filter: grayscale(1);
  opacity: 0.75;
}

.watched {
  fill: rgb(19 133 126 / 14%);
  stroke: #0c5f5a;
  stroke-width: 1.5;
}

.ignored {
  fill: rgb(255 253 248 / 60%);
  stroke: none;
}

.way {
  fill: none;
  stroke: #5b2f66;
  stroke-width: 3;
}

.back {
  stroke: #fffdf8;
  stroke-width: 6;
}

.start {
  fill: #fffdf8;
  stroke: #5b2f66;
  stroke-width: 2;
}

.noticed {
  fill: #5b2f66;
  stroke: #fffdf8;
  stroke-width: 2;
}

text {
  font-size: 13px;
  font-weight: 600;
  fill: #231c2e;
  paint-order: stroke;
  stroke: #fffdf8;
  stroke-width: 4px;
}
</style>
