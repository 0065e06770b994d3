<script setup lang="ts">
import { computed } from 'vue'

import type { InPicture } from '../../../api/types'
import { three } from '../../../ui/figures'
import { labelAt } from './label'

/** A walk over the picture, with where it is noticed and lost. */
const { line, seen, moment, width, height, unit } = defineProps<{
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
    const text = isNear ? '' : `${does} ${three(seconds)} s${away ? ` · ${three(away)} m` : ''}`
    const lift = does === 'lost' ? 20 : 4
    return box
      ? [
          {
            box,
            text,
            ...labelAt(text, box.right * width + 5 * unit, box.bottom * height - lift * unit, width, height, unit),
          },
        ]
      : []
  })
})
const now = computed(() => (moment === undefined ? undefined : seen?.track[moment]))
const nowAt = computed(
  () => now.value && labelAt('00.0 s', now.value.right * width + 5 * unit, now.value.top * height, width, height, unit),
)
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
    <text v-if="here" :x="m.x" :y="m.y" class="strong">{{ m.text }}</text>
  </template>
  <g v-if="here && now" class="moment" data-test="moment">
    <rect
      :x="now.left * width"
      :y="now.top * height"
      :width="(now.right - now.left) * width"
      :height="(now.bottom - now.top) * height"
    />
    <text :x="nowAt!.x" :y="nowAt!.y" class="strong">{{ three(now.seconds) }} s</text>
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
