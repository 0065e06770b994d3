<script setup lang="ts">
import { computed } from 'vue'

import type { Area, Channel } from '../../api/types'
import { useSite } from '../../site/useSite'

/** An area as it is drawn at the recorder: its outline over the picture, or the cells that are to be marked. */
const props = defineProps<{ area: Area; channel: Channel }>()
const site = useSite()
const picture = computed(() => props.channel.scene?.picture)
const corners = computed(() => (props.area.points ?? []).map(([x, y]) => `${x! * 160},${y! * 90}`).join(' '))
const cells = computed(() => {
  const c = props.area.cells
  if (!c) return []
  const bits = Uint8Array.from(atob(c.on), (letter) => letter.charCodeAt(0))
  const out: { x: number; y: number; w: number; h: number }[] = []
  const [w, h] = [160 / c.columns, 90 / c.rows]
  for (let i = 0; i < c.columns * c.rows; i++)
    if ((bits[i >> 3]! >> (7 - (i & 7))) & 1)
      out.push({ x: (i % c.columns) * w, y: Math.floor(i / c.columns) * h, w, h })
  return out
})
</script>

<template>
  <svg viewBox="-1 -1 162 92" role="img" :aria-label="`${area.name} on ${channel.name}`">
    <rect width="160" height="90" class="ground" />
    <image
      v-if="picture"
      :href="`/api/plans/${site.planId}/pictures/${picture}`"
      width="160"
      height="90"
      preserveAspectRatio="none"
      opacity="0.55"
      style="filter: grayscale(1)"
    />
    <polygon v-if="corners" :points="corners" :class="area.ignore ? 'ignored' : 'watched'" />
    <template v-if="area.points">
      <g v-for="([x, y], i) in area.points" :key="i">
        <circle :cx="x! * 160" :cy="y! * 90" r="1.6" class="corner" />
        <text :x="x! * 160 + 2.5" :y="y! * 90 - 1.5" class="label">{{ i + 1 }}</text>
      </g>
    </template>
    <rect
      v-for="(c, i) in cells"
      :key="i"
      :x="c.x"
      :y="c.y"
      :width="c.w"
      :height="c.h"
      :class="area.ignore ? 'ignored' : 'watched'"
    />
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  border: 1px solid var(--rule);
}

.ground {
  fill: var(--band);
}

.watched {
  fill: color-mix(in srgb, var(--motion) 25%, transparent);
  stroke: var(--ink);
  stroke-width: 0.7;
}

.ignored {
  fill: color-mix(in srgb, var(--sheet) 70%, transparent);
  stroke: var(--ink);
  stroke-width: 0.7;
  stroke-dasharray: 2 1.5;
}

.corner {
  fill: var(--ink);
}

.label {
  font-size: 7px;
  font-weight: 600;
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 1.6px;
}
</style>
