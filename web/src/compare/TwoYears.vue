<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Compared, YearFigures } from '../api/types'
import YearChart, { type YearCurve } from '../disk/YearChart.vue'

/** The days that two variants keep at every date of the year, each in the pool that comes off worst. */
const { first, second } = defineProps<{ first: Compared; second: Compared }>()
const yearOf = (of: () => Compared) =>
  useAnswer(
    () => [of().id, of().version],
    () => api.GET('/api/plans/{id}/year', { params: { path: { id: of().id } } }),
    { keep: true },
  ).data
const one = yearOf(() => first)
const two = yearOf(() => second)
const worst = (y?: YearFigures) => y?.pools.find((p) => p.days.length && p.worstDate === y.worstDate) ?? undefined
const required = computed(() => Math.max(0, ...(one.value?.pools ?? []).map((p) => p.requiredDays)))
const curves = computed<YearCurve[]>(() => {
  const [a, b] = [worst(one.value), worst(two.value)]
  return [
    ...(a ? [{ id: first.id, days: a.days, look: 'first' as const }] : []),
    ...(b ? [{ id: second.id, days: b.days, look: 'second' as const }] : []),
  ]
})
</script>

<template>
  <section v-if="curves.length" class="years" data-test="two-years">
    <h2>Days kept over {{ (one ?? two)!.from.slice(0, 4) }}</h2>
    <YearChart
      :from="(one ?? two)!.from"
      :curves="curves"
      :required="required"
      :label="`Days kept at every date of the year by ${first.name} and by ${second.name}; the figures of their worst dates stand in the table`"
    />
    <p class="soft legend">
      <span><i class="first" /> {{ first.name }}</span>
      <span><i class="second" /> {{ second.name }}</span>
      <span v-if="required"><i class="required" /> longest required</span>
    </p>
  </section>
</template>

<style scoped>
.years {
  flex: 1 1 300px;
  max-width: 560px;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 4px 0 0;
  font-size: 12.5px;
}

i {
  display: inline-block;
  width: 20px;
  margin-right: 3px;
  border-top: 2px solid var(--base);
  vertical-align: middle;
}

.second {
  border-top: 2px dashed var(--motion);
}

.required {
  border-top: 1px dashed var(--soft);
}
</style>
