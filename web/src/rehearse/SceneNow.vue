<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import PersonFigure from '../drawing/PersonFigure.vue'
import { useSite } from '../site/useSite'
import { firstFrom } from './drawTimeline'
import type { Rehearsing } from './useRehearsal'

/** A plain drawing of what a camera looks at: the horizon, its watched areas, its ways, and who walks on them now. */
const { r, channel } = defineProps<{ r: Rehearsing; channel: string }>()
const site = useSite()
const { data } = useAnswer(
  () => [site.stamp, channel],
  () =>
    api.POST('/api/plans/{id}/channels/{channel}/picture', {
      params: { path: { id: site.planId, channel } },
      body: { edits: [] },
    }),
)
const sight = computed(() => data.value?.sight)
const plan = computed(() => site.channels.get(channel))
const H = 100
const W = computed(() => H * (sight.value?.aspect ?? 16 / 9))
const line = (points: readonly (readonly number[])[]) =>
  points.map(([x, y]) => `${(x ?? 0) * W.value},${(y ?? 0) * H}`).join(' ')
const areas = computed(() => {
  const list = plan.value?.detection?.areas
  return Array.isArray(list) ? list.filter((a) => a.points) : []
})
/** Who is on a way now: each as a box where they are. */
const walkers = computed(() => {
  const c = r.cameras.value.find((x) => x.id === channel)
  const s = sight.value
  if (!c || !s) return []
  const at = r.head.value
  const out: { x: number; y: number; w: number; h: number; missed: boolean }[] = []
  for (let k = firstFrom(c.start, at - 1800); k < c.start.length && c.start[k]! <= at; k++) {
    const w = s.walks[c.walk[k] ?? -1]
    if (!w || at >= c.start[k]! + c.length[k]!) continue
    const spent = ((at - c.start[k]!) / c.length[k]!) * w.seconds
    const b = w.track.find((t) => t.seconds >= spent) ?? w.track.at(-1)
    if (b) out.push({ x: b.left, y: b.top, w: b.right - b.left, h: b.bottom - b.top, missed: c.fate[k] === 0 })
  }
  return out
})
</script>

<template>
  <svg
    v-if="sight"
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    :aria-label="`What ${plan?.name} looks at, with ${walkers.length} on their way`"
    data-test="scene"
  >
    <line
      v-if="sight.ground"
      x1="0"
      :x2="W"
      :y1="sight.ground.horizon * H"
      :y2="sight.ground.horizon * H"
      class="horizon"
    />
    <polygon v-for="a in areas" :key="a.id" :points="line(a.points!)" :class="a.ignore ? 'ignored' : 'watched'" />
    <polyline v-for="w in plan?.scene?.walks ?? []" :key="w.id" :points="line(w.points)" class="way" />
    <g v-for="(b, i) in walkers" :key="i" class="walker" :class="{ missed: b.missed }">
      <PersonFigure
        v-if="b.h * H > 1.3 * b.w * W"
        :feet="[b.x + b.w / 2, b.y + b.h]"
        :head="[b.x + b.w / 2, b.y]"
        :width="W"
        :height="H"
      />
      <rect v-else :x="b.x * W" :y="b.y * H" :width="b.w * W" :height="b.h * H" rx="1.5" />
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  border: 1px solid var(--rule);
  background: var(--sheet);
}

.horizon {
  stroke: var(--soft);
  stroke-dasharray: 2 2;
  stroke-width: 0.6;
}

.watched {
  fill: color-mix(in srgb, var(--motion) 14%, transparent);
  stroke: var(--motion);
  stroke-width: 0.6;
}

.ignored {
  fill: var(--band);
}

.way {
  fill: none;
  stroke: var(--ink);
  stroke-width: 0.5;
  stroke-dasharray: 1.5 1;
}

.walker > :deep(*) {
  fill: var(--ink);
  opacity: 1;
}

.missed > :deep(*) {
  fill: var(--short);
}
</style>
