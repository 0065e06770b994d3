<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Compared, YearFigures } from '../api/types'
import YearChart, { type YearCurve } from '../disk/YearChart.vue'

/** The days that variants keep at every date of the year, each in the pool that comes off worst. */
const { list } = defineProps<{ list: Compared[] }>()
const { data: years, failure } = useAnswer(
  () => list.flatMap((c) => [c.id, c.version]),
  async () => {
    const told = await Promise.all(list.map((c) => api.GET('/api/plans/{id}/year', { params: { path: { id: c.id } } })))
    const failed = told.find((t) => !t.data)
    return failed ?? { data: told.map((t) => t.data!), response: told[0]!.response }
  },
  { keep: true },
)
const worst = (y?: YearFigures) => y?.pools.find((p) => p.days.length && p.worstDate === y.worstDate) ?? undefined
const curves = computed<YearCurve[]>(() =>
  list.flatMap((c, i) => {
    const pool = worst(years.value?.[i])
    return pool ? [{ id: c.id, name: c.name, days: pool.days, required: pool.requiredDays }] : []
  }),
)
</script>

<template>
  <p v-if="failure" class="short" role="alert">{{ failure }}</p>
  <section v-else-if="curves.length" data-test="years">
    <h2>Days kept over {{ years![0]!.from.slice(0, 4) }}</h2>
    <YearChart
      :from="years![0]!.from"
      :curves="curves"
      :height="150"
      :label="`Days kept at every date of the year by ${list.map((c) => c.name).join(', ')}; the figures of their worst dates stand in the table`"
    />
  </section>
</template>
