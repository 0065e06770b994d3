<script setup lang="ts">
import { computed } from 'vue'

import type { YearFigures } from '../api/types'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'

/** The days kept at every date of a year, a line for each pool over its months, with the worst date by name. */
const { found } = defineProps<{ found: YearFigures | undefined; failure: string; brief?: boolean }>()
const site = useSite()
const pools = computed(() => (found?.pools ?? []).filter((p) => p.days.length))
const required = computed(() => Math.max(0, ...(found?.pools ?? []).map((p) => p.requiredDays)))
const most = computed(() => Math.max(required.value, ...pools.value.map((p) => Math.max(...p.days))) * 1.1 || 1)
const place = (days: number) => 60 - (58 * days) / most.value
const line = (days: number[]) => days.map((d, i) => `${i},${place(d).toFixed(1)}`).join(' ')
const first = computed(() => Date.parse(found?.from ?? '2026-01-01'))
const year = computed(() => new Date(first.value).getUTCFullYear())
const monthName = new Intl.DateTimeFormat('en-GB', { month: 'narrow', timeZone: 'UTC' })
const months = computed(() =>
  Array.from({ length: 12 }, (_, m) => {
    const at = Date.UTC(year.value, m, 1)
    return { m, name: monthName.format(at), day: (at - first.value) / 86_400_000 }
  }),
)
const names = computed(() => new Map((site.plan?.recorders ?? []).flatMap((r) => r.pools).map((p) => [p.id, p.name])))

const date = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' })
const words = computed(() =>
  pools.value.map((p) => {
    const worst = p.worstDate
      ? `${three(p.worstDays!)} days on ${date.format(Date.parse(p.worstDate))}${p.name ? `, ${p.name}` : ''}`
      : ''
    const full =
      p.fullAfterDays != null ? `; beginning empty on 1 January it is full after ${three(p.fullAfterDays)} days` : ''
    return `${names.value.get(p.id)}: at worst ${worst}${full}.`
  }),
)
</script>

<template>
  <section class="line" aria-label="Days kept over the year" data-test="year-line">
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <template v-else-if="pools.length">
      <svg
        viewBox="0 0 365 62"
        preserveAspectRatio="none"
        role="img"
        :aria-label="`Days kept at every date of ${year}. ${words.join(' ')}`"
      >
        <line v-for="m in months.slice(1)" :key="m.m" :x1="m.day" :x2="m.day" y1="0" y2="62" class="month" />
        <line v-if="required" x1="0" x2="365" :y1="place(required)" :y2="place(required)" class="required" />
        <polyline v-for="p in pools" :key="p.id" :points="line(p.days)" :class="{ under: p.short }" />
      </svg>
      <p class="months soft" aria-hidden="true">
        <span v-for="m in months" :key="m.m">{{ m.name }}</span>
      </p>
      <p v-if="!brief" class="soft">
        Days kept at every date of {{ year
        }}<template v-if="required">; the dashed line is the most that is required, {{ three(required) }} days</template
        >.
      </p>
      <p v-for="w in words.slice(0, brief ? 2 : 12)" :key="w">{{ w }}</p>
    </template>
    <p v-else-if="found" class="soft">Nothing is overwritten within the time looked at, so there is no line to draw.</p>
  </section>
</template>

<style scoped>
/* As high before the answer as after it, so that nothing moves away below a pointer. */
.line {
  height: 164px;
  overflow: auto;
}

svg {
  width: 100%;
  height: 86px;
  border-bottom: 1px solid var(--rule);
}

polyline {
  fill: none;
  stroke: var(--base);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

polyline.under {
  stroke: var(--short);
}

.month {
  stroke: var(--rule);
  vector-effect: non-scaling-stroke;
}

.months {
  display: grid;
  grid-template-columns: repeat(12, 1fr);
  margin: 0;
  font-size: 11px;
  text-align: center;
}

.required {
  stroke: var(--soft);
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
}

p {
  margin: 3px 0;
}
</style>
