<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import { useSite } from '../site/useSite'
import { days, gigabytes } from '../ui/figures'
import GlanceWeek from './GlanceWeek.vue'
import GlanceYear from './GlanceYear.vue'

/**
 * What the plan comes to, in the room that a page leaves: the weeks of the channels, and the days kept over the year.
 * It takes what is left and asks for none, and is not there where that is little.
 */
const site = useSite()
const box = useTemplateRef('box')
const { width, height } = useElementSize(box)
const isThere = computed(
  () => width.value >= 480 && height.value >= 230 && !!site.plan?.channels.some((c) => !c.noCamera),
)
/** Side by side where both have their width, one below the other where there is the height, else the weeks alone. */
const beside = computed(() => width.value >= 1000)
const below = computed(() => !beside.value && height.value >= 480)
const yearHeight = computed(() => (beside.value ? Math.min(420, height.value - 130) : 150))
const weekHeight = computed(() => height.value - 96 - (below.value ? yearHeight.value + 40 : 0))
</script>

<template>
  <div ref="box" class="glance" data-test="glance">
    <section v-if="isThere" class="sheet" :class="{ beside }" aria-label="What the plan comes to">
      <h2>What the plan comes to</h2>
      <p class="soft">
        {{ gigabytes(site.verdict?.gigabytesPerDay ?? 0) }} a day on {{ gigabytes(site.verdict?.usableGB ?? 0) }}, kept
        {{ days(site.verdict?.keptDays) }}.
        <RouterLink :to="{ name: 'week' }">Plan the week</RouterLink>
      </p>
      <GlanceWeek :of="site" :to="{ name: 'week' }" :height="weekHeight" />
      <GlanceYear v-if="beside || below" :height="yearHeight" />
    </section>
  </div>
</template>

<style scoped>
.glance {
  flex: 1 1 0;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  contain: size;
  padding: 16px;
}

.sheet {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  gap: 4px 32px;
  height: 100%;
  padding: 12px 16px;
}

.beside {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  grid-template-rows: auto auto minmax(0, 1fr);
}

.beside > :is(h2, p) {
  grid-column: 1 / -1;
}

p {
  margin: 0 0 4px;
}

@media print {
  .glance {
    display: none;
  }
}
</style>
