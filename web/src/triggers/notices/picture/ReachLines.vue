<script setup lang="ts">
import { computed } from 'vue'

import { choices } from '../../../api/format'
import type { InPicture } from '../../../api/types'
import { useSite } from '../../../site/useSite'
import { three } from '../../../ui/figures'

/** The lines beyond which things are too small however they stand, a line for each kind of thing. */
const { sight, width, height, unit } = defineProps<{
  sight: InPicture['sight'] | undefined
  width: number
  height: number
  unit: number
}>()
const site = useSite()
const nameOf = (id: string) =>
  site.plan?.objects?.find((o) => o.id === id)?.name ?? choices.objects.value.find(([o]) => o === id)?.[1] ?? id

/** From far to near. Names of lines that lie close to each other are drawn side by side. */
const lines = computed(() => {
  let last = -Infinity
  let right = 0
  return [...(sight?.reach ?? [])]
    .filter((r) => r.y > 0 && r.y < 1)
    .sort((a, b) => a.y - b.y)
    .map((r, i) => {
      const text = i ? `${nameOf(r.id)} ${three(r.metres)} m` : `too small beyond: ${nameOf(r.id)} ${three(r.metres)} m`
      const isClose = r.y * height - last < 18 * unit
      const x = isClose ? right : 6 * unit
      right = x + (text.length * 6.3 + 14) * unit
      if (!isClose) last = r.y * height
      return { ...r, text: right > width ? '' : text, x, base: last - 4 * unit }
    })
})
</script>

<template>
  <g aria-hidden="true" data-test="reach">
    <template v-for="l in lines" :key="l.id">
      <path :d="`M0 ${l.y * height}H${width}`" :class="{ person: l.id === 'person' }" />
      <text :x="l.x" :y="l.base" class="strong">{{ l.text }}</text>
    </template>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  stroke-dasharray: 4 8;
  pointer-events: none;
}

.person {
  stroke-width: 2;
  stroke-dasharray: 12 8;
}
</style>
