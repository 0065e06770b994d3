<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'

/** The days kept at every date of a year, a line for each pool, with the worst date by name. */
const props = defineProps<{ year: number }>()
const site = useSite()
const { data: found, failure } = useAnswer(
  () => [props.year, site.stamp],
  () => api.GET('/api/plans/{id}/year', { params: { ...site.here, query: { year: props.year } } }),
  { keep: true },
)

const pools = computed(() => (found.value?.pools ?? []).filter((p) => p.days.length))
const required = computed(() => Math.max(0, ...(found.value?.pools ?? []).map((p) => p.requiredDays)))
const most = computed(() => Math.max(required.value, ...pools.value.map((p) => Math.max(...p.days))) * 1.1 || 1)
const place = (days: number) => 60 - (58 * days) / most.value
const line = (days: number[]) => days.map((d, i) => `${i},${place(d).toFixed(1)}`).join(' ')
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
        <line v-if="required" x1="0" x2="365" :y1="place(required)" :y2="place(required)" class="required" />
        <polyline v-for="p in pools" :key="p.id" :points="line(p.days)" :class="{ under: p.short }" />
      </svg>
      <p class="soft">
        Days kept, January to December<template v-if="required"
          >; the dashed line is the most that is required, {{ three(required) }} days</template
        >.
      </p>
      <p v-for="w in words.slice(0, 12)" :key="w">{{ w }}</p>
    </template>
    <p v-else-if="found" class="soft">Nothing is overwritten within the time looked at, so there is no line to draw.</p>
  </section>
</template>

<style scoped>
/* As high before the answer as after it, so that nothing moves away below a pointer. */
.line {
  height: 148px;
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

.required {
  stroke: var(--soft);
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
}

p {
  margin: 3px 0;
}
</style>
