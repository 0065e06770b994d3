<script setup lang="ts">
import { computed } from 'vue'

import type { YearFigures } from '../api/types'
import { useSite } from '../site/useSite'
import { dayAndMonth } from '../time/dates'
import { three } from '../ui/figures'
import YearChart from './YearChart.vue'

/** The days kept at every date of a year, a line for each pool over its months, with the worst date by name. */
const { found, height = 116 } = defineProps<{
  found: YearFigures | undefined
  failure: string
  brief?: boolean
  height?: number // of the chart; its words stand below
}>()
const site = useSite()
const pools = computed(() => (found?.pools ?? []).filter((p) => p.days.length))
const required = computed(() => Math.max(0, ...(found?.pools ?? []).map((p) => p.requiredDays)))
const year = computed(() => found?.from.slice(0, 4))
const names = computed(() => new Map((site.plan?.recorders ?? []).flatMap((r) => r.pools).map((p) => [p.id, p.name])))

const words = computed(() =>
  pools.value.map((p) => {
    const worst = p.worstDate
      ? `${three(p.worstDays!)} days on ${dayAndMonth(p.worstDate)}${p.name ? `, ${p.name}` : ''}`
      : ''
    const full =
      p.fullAfterDays != null ? `; beginning empty on 1 January it is full after ${three(p.fullAfterDays)} days` : ''
    return `${names.value.get(p.id)}: at worst ${worst}${full}.`
  }),
)
</script>

<template>
  <!-- As high before the answer as after it, so that nothing moves away below a pointer. -->
  <section
    class="line"
    :style="{ height: `${height + 48}px` }"
    aria-label="Days kept over the year"
    data-test="year-line"
  >
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <template v-else-if="pools.length">
      <YearChart
        :from="found!.from"
        :height="height"
        :curves="
          pools.map((p) => ({
            id: p.id,
            name: pools.length > 1 ? names.get(p.id) : undefined,
            days: p.days,
            required: p.requiredDays,
          }))
        "
        :label="`Days kept at every date of ${year}. ${words.join(' ')}`"
      />
      <p v-if="!brief" class="soft">
        Days kept at every date of {{ year }}<template v-if="required">, against what is required</template>.
      </p>
      <p v-for="w in words.slice(0, brief ? 2 : 12)" :key="w">{{ w }}</p>
    </template>
    <p v-else-if="found" class="soft">Nothing is overwritten within the time looked at, so there is no line to draw.</p>
  </section>
</template>

<style scoped>
.line {
  overflow: auto;
}

p {
  margin: 3px 0;
}
</style>
