<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PoolFigures } from '../api/types'
import { useSite } from '../site/useSite'
import { daysInWords, gigabytes, three } from '../ui/figures'
import { usePoolMarks } from './usePoolMarks'

/**
 * What is on a pool, from now back to the oldest: a strip for each channel, as wide as its days, as high as it writes,
 * so that its area is its bytes. What is required stands as ticks over it.
 */
const { pool } = defineProps<{ pool: PoolFigures; compact: boolean }>()
const site = useSite()
const H = 120
const members = computed(() =>
  (site.plan?.channels ?? [])
    .filter((c) => c.pool === pool.id && !c.noCamera)
    .map((c) => ({ channel: c, figures: site.figures.get(c.id) }))
    .filter((m) => (m.figures?.gigabytesPerDay ?? 0) > 0)
    .sort((a, b) => b.figures!.gigabytesPerDay - a.figures!.gigabytesPerDay),
)
const sum = computed(() => members.value.reduce((s, m) => s + m.figures!.gigabytesPerDay, 0))
const required = computed(() =>
  [...new Set(members.value.flatMap((m) => m.figures!.requiredDays ?? []))].sort((a, b) => a - b),
)
const longest = computed(() =>
  Math.max(1, pool.retentionDays ?? 0, ...required.value, ...members.value.map((m) => m.figures!.retentionDays ?? 0)),
)
const scale = computed(() => longest.value * 1.08)
const strips = computed(() => {
  let y = 0
  return members.value.map((m, i) => {
    const height = (H * m.figures!.gigabytesPerDay) / (sum.value || 1)
    const kept = m.figures!.retentionDays ?? longest.value
    const strip = {
      id: m.channel.id,
      name: m.channel.name,
      y,
      height,
      kept,
      gb: m.figures!.gigabytesPerDay,
      isShort: m.figures!.short,
      tone: i % 3,
    }
    y += height
    return strip
  })
})
const x = (days: number) => (1000 * days) / scale.value
const pointed = ref('')
const said = computed(() => {
  const s = strips.value.find((t) => t.id === pointed.value)
  return s ? `${s.name}: ${gigabytes(s.gb)} a day, ${daysInWords(s.kept)}, ${gigabytes(s.gb * s.kept)} on disk` : ''
})
const explained = computed(
  () =>
    'A strip for each channel, as wide as its days and as high as what it writes: its area is its disk. ' +
    (pool.retentionDays == null
      ? 'Limits of age and quotas keep the pool from ever being full.'
      : `Begun empty, the pool is full for the first time after ${daysInWords(pool.retentionDays)}.`),
)
const marks = usePoolMarks(() => pool)
const ticks = computed(() => [0, 0.25, 0.5, 0.75, 1].map((f) => Math.round(f * longest.value)))
</script>

<template>
  <section class="pool" :class="{ compact }" :data-band="pool.id">
    <h2>
      {{ site.plan?.recorders.flatMap((r) => r.pools).find((p) => p.id === pool.id)?.name }}
      <span class="soft"
        >{{ gigabytes(pool.usableGB) }} usable, {{ gigabytes(pool.gigabytesPerDay) }} a day ·
        <b>{{ pool.retentionDays == null ? 'never full' : daysInWords(pool.retentionDays) }}</b><template
          v-if="pool.worstDays != null"
          >, {{ three(pool.worstDays) }} at the worst hour</template
        ></span
      >
    </h2>
    <p v-if="!pool.usableGB" data-test="no-drives">
      There are no drives in this pool yet, so nothing is kept. Add them under <i>Pools and limits</i>.
    </p>
    <svg
      v-else
      viewBox="0 0 1000 150"
      preserveAspectRatio="none"
      role="img"
      :aria-label="`${strips.length} channels, now on the left, the oldest on the right. ${said}`"
      @pointerleave="pointed = ''"
    >
      <rect
        v-for="s in strips"
        :key="s.id"
        :x="0"
        :y="s.y"
        :width="x(s.kept)"
        :height="Math.max(0.6, s.height - 0.6)"
        :class="[`tone${s.tone}`, { pointed: pointed === s.id }]"
        @pointermove="pointed = s.id"
      />
      <line
        v-for="m in marks"
        :key="m.name"
        :x1="x(m.days)"
        :x2="x(m.days)"
        y1="0"
        :y2="H + 5"
        class="mark"
        :class="m.kind"
      />
      <line x1="0" x2="1000" :y1="H" :y2="H" class="axis" />
    </svg>
    <p class="scale soft" aria-hidden="true">
      <span v-for="t in ticks" :key="t" :style="{ left: `${x(t) / 10}%` }">{{ t ? `${t} d` : 'now' }}</span>
    </p>
    <p class="legend">
      <span v-for="m in marks" :key="m.name"
        ><svg viewBox="0 0 20 8" aria-hidden="true">
          <line x1="0" x2="20" y1="4" y2="4" class="mark" :class="m.kind" />
        </svg>
        {{ m.name }}</span
      >
      <span v-if="!marks.length" class="soft">Nothing is required of what is kept here.</span>
    </p>
    <p v-if="!compact || said" class="said soft" aria-live="polite">
      {{ said || explained }}
    </p>
  </section>
</template>

<style scoped>
.pool {
  margin-bottom: 14px;
}

h2 {
  margin: 0 0 4px;
}

h2 span {
  font-weight: 400;
  margin-left: 8px;
}

svg {
  display: block;
  width: 100%;
  height: 150px;
}

.compact svg {
  height: 62px;
}

.compact .scale {
  margin-top: -9px;
}

.tone0 {
  fill: var(--base);
}

.tone1 {
  fill: color-mix(in srgb, var(--base) 78%, var(--sheet));
}

.tone2 {
  fill: color-mix(in srgb, var(--base) 58%, var(--sheet));
}

.pointed {
  fill: var(--motion);
}

.mark,
.axis {
  stroke: var(--soft);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

.required {
  stroke: var(--short);
  stroke-dasharray: 6 3;
}

.permitted {
  stroke: var(--alarm);
  stroke-dasharray: 10 3;
}

.worst {
  stroke: var(--ink);
  stroke-dasharray: 1.5 3;
}

.year {
  stroke: var(--motion);
  stroke-dasharray: 3 2;
}

.failed {
  stroke: var(--ink);
  stroke-dasharray: 8 2 2 2;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 0;
  font-size: 12.5px;
}

.legend svg {
  display: inline-block;
  width: 22px;
  height: 8px;
}

.scale {
  position: relative;
  height: 16px;
  margin: -22px 0 2px;
  font-size: 11.5px;
}

.scale span {
  position: absolute;
  transform: translateX(-50%);
  white-space: nowrap;
}

.scale span:first-child {
  transform: none;
}

.said {
  margin: 0;
  font-size: 12px;
}
</style>
