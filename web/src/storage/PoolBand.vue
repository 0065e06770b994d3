<script setup lang="ts">
import { computed, ref } from 'vue'

import type { PoolFigures, YearPool } from '../api/types'
import { useSite } from '../site/useSite'
import { count, daysInWords, gigabytes, three } from '../ui/figures'
import { MARGIN, stepOf } from './band'
import BandPicture from './BandPicture.vue'
import './marks.css'
import { useLayers, type By } from './useLayers'
import { usePoolMarks } from './usePoolMarks'

/** What is on a pool, from now back to the oldest, with what is required of it and what is short. */
const { pool, by, year } = defineProps<{ pool: PoolFigures; by: By; year: YearPool | undefined; compact: boolean }>()
const site = useSite()
const { members, days, layers } = useLayers(
  () => pool,
  () => by,
)
const { marks, failed } = usePoolMarks(
  () => pool,
  () => year,
)
const kept = computed(() => pool.retentionDays ?? days.value)
const pointed = ref('')
const back = ref(0)
const said = computed(() => {
  const l = layers.value.find((o) => o.id === pointed.value)
  if (!l) return ''
  const longest = Math.max(...l.parts.map((p) => p.kept))
  return `${l.name}: ${gigabytes(l.gigabytesPerDay)} a day, the oldest ${daysInWords(longest)} old; pointed at ${three(back.value)} days back`
})
const explained = computed(
  () =>
    `Ordinary weeks back from a Sunday midnight${stepOf(days.value) < 1 ? ', hour by hour' : stepOf(days.value) > 1 ? '' : ', a step for each day'}; the area is the disk. ` +
    (pool.retentionDays == null
      ? 'By limits of age and quotas the pool never fills.'
      : `Begun empty, it is full for the first time after ${daysInWords(pool.retentionDays)}.`) +
    (failed.value ? ` If a drive fails: ${failed.value.consequence}` : ''),
)
const step = computed(() => [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000].find((s) => days.value / s <= 8) ?? 5000)
const ticks = computed(() => Array.from({ length: Math.floor(days.value / step.value) + 1 }, (_, i) => i * step.value))
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
    <template v-else>
      <BandPicture
        :layers="layers"
        :days="days"
        :marks="marks"
        :short-g-b="pool.shortGB"
        :kept="kept"
        :pointed="pointed"
        :label="`What is on the disks: ${count(members.length, 'channel')}, now on the left, the oldest on the right. ${said}`"
        @point="(layer, daysBack) => ((pointed = layer), (back = daysBack))"
      />
      <p class="scale soft" aria-hidden="true">
        <span v-for="t in ticks" :key="t" :style="{ left: `${(100 * t) / (days * MARGIN)}%` }">{{
          t ? `${t} d` : 'now'
        }}</span>
      </p>
    </template>
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

.compact :deep(.picture) {
  height: 66px;
}

.scale {
  position: relative;
  height: 16px;
  margin: 1px 0 2px;
  font-size: var(--axis);
}

.scale span {
  position: absolute;
  transform: translateX(-50%);
  white-space: nowrap;
}

.scale span:first-child {
  transform: none;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 0;
  font-size: var(--second);
}

.legend svg {
  display: inline-block;
  width: 22px;
  height: 8px;
}

.said {
  min-height: 2lh;
  margin: 0;
  font-size: var(--second);
}

.compact .said {
  min-height: 0;
}
</style>
