<script setup lang="ts">
import { computed } from 'vue'

import type { InPicture } from '../api/types'
import { three } from '../ui/figures'

/** A walk over the picture, with where it is noticed and lost. */
const { line, seen } = defineProps<{
  line: string
  seen: InPicture['sight']['walks'][number] | undefined
  here: boolean
  moment: number | undefined
  width: number
  height: number
  unit: number
}>()

/** The place of the walker at a moment, of those that the core told. */
const marks = computed(() => {
  if (!seen) return []
  const noticed = { seconds: seen.noticedSeconds, does: 'noticed', away: seen.awayMetres }
  const lost = { seconds: seen.lostSeconds, does: 'lost', away: undefined }
  return [noticed, lost].flatMap(({ seconds, does, away }) => {
    if (seconds === undefined) return []
    const isNear = does === 'lost' && seconds - (seen.noticedSeconds ?? -9) < seen.seconds / 8
    const box = seen.track.find((b) => b.seconds >= seconds - 0.05) ?? seen.track.at(-1)
    return box ? [{ box, text: isNear ? '' : `${does} ${three(seconds)} s${away ? ` · ${three(away)} m` : ''}` }] : []
  })
})
</script>

<template>
  <polyline :points="line" class="wide" />
  <polyline :points="line" :class="{ here }" />
  <template v-for="(m, i) in marks" :key="i">
    <rect
      :class="{ faint: !here }"
      :x="m.box.left * width"
      :y="m.box.top * height"
      :width="(m.box.right - m.box.left) * width"
      :height="(m.box.bottom - m.box.top) * height"
      rx="6"
    />
    <text
      v-if="here"
      :x="m.box.right * width + 5 * unit"
      :y="m.box.bottom * height - (i ? 20 : 4) * unit"
      class="strong"
    >
      {{ m.text }}
    </text>
  </template>
  <g v-if="here && moment !== undefined && seen?.track[moment]" class="moment" data-test="moment">
    <rect
      :x="seen.track[moment]!.left * width"
      :y="seen.track[moment]!.top * height"
      :width="(seen.track[moment]!.right - seen.track[moment]!.left) * width"
      :height="(seen.track[moment]!.bottom - seen.track[moment]!.top) * height"
    />
    <text :x="seen.track[moment]!.right * width + 5 * unit" :y="seen.track[moment]!.top * height" class="strong">
      {{ three(seen.track[moment]!.seconds) }} s
    </text>
  </g>
</template>

<style scoped>
polyline {
  fill: none;
  stroke: var(--base);
  stroke-width: 5;
}

.wide {
  stroke-width: 30;
  stroke: transparent;
}

.here {
  stroke-width: 8;
}

.moment rect {
  fill: none;
  stroke: var(--base);
  stroke-width: 4;
}

.faint {
  opacity: 0.4;
}

rect {
  pointer-events: none;
  fill: color-mix(in srgb, var(--base) 55%, transparent);
}
</style>
