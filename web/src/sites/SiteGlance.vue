<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { SiteLine } from '../api/types'
import GlanceWeek from '../glance/GlanceWeek.vue'
import { days, gigabytes } from '../ui/figures'

/** The weeks of a site's channels, and what they come to. */
const { site, height } = defineProps<{ site: SiteLine; height: number }>()
const { data, failure } = useAnswer(
  () => [site.id, site.plan, site.version],
  () => api.GET('/api/sites/{id}', { params: { path: { id: site.id } } }),
  { keep: true },
)
const of = computed(() => {
  const view = data.value?.plan
  return (
    view && {
      plan: view.plan,
      verdict: view.verdict,
      duties: new Map(view.plan.duties.map((d) => [d.id, d])),
      figures: new Map(view.figures.map((f) => [f.id, f])),
      ribbons: new Map(view.ribbons.map((r) => [r.id, r])),
    }
  )
})
</script>

<template>
  <section class="sheet" :aria-label="`The week of ${site.name}`">
    <h2 :title="site.name">
      <RouterLink :to="`/sites/${site.id}`">{{ site.name }}</RouterLink>
    </h2>
    <p v-if="failure" class="soft" role="status">{{ failure }}</p>
    <template v-else-if="of">
      <p class="soft">
        {{ gigabytes(of.verdict.gigabytesPerDay) }} a day on {{ gigabytes(of.verdict.usableGB) }}, kept
        {{ days(of.verdict.keptDays) }}.
      </p>
      <GlanceWeek :of="of" :to="`/sites/${site.id}`" :height="height - 90" />
    </template>
  </section>
</template>

<style scoped>
.sheet {
  min-width: 0;
  padding: 12px 16px;
  overflow: hidden;
}

h2 {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

p {
  margin: 0 0 4px;
}
</style>
