<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'
import type { RouteLocationRaw } from 'vue-router'

import type { Channel, Duty, Figures, Ribbon } from '../api/types'
import StillRibbon from '../drawing/StillRibbon.vue'
import { dayNames } from '../time/week'
import { amount, count, days } from '../ui/figures'

/** The weeks of the channels, as many as there is room for, each with what it writes and how long that is kept. */
const { of, height } = defineProps<{
  of: {
    plan?: { channels: Channel[] }
    duties: Map<string, Duty>
    figures: Map<string, Figures>
    ribbons: Map<string, Ribbon>
  }
  to: RouteLocationRaw // the page of its week
  height: number
}>()
const axis = useTemplateRef('axis')
const { width } = useElementSize(axis)
const ROW = 24
const all = computed(() => (of.plan?.channels ?? []).filter((c) => !c.noCamera))
const room = computed(() => Math.max(1, Math.floor((height - 20) / ROW)))
const shown = computed(() => all.value.slice(0, all.value.length > room.value ? room.value - 1 : room.value))
/** Where all have room they share the height that there is, up to twice what they take on a full page. */
const row = computed(() =>
  shown.value.length < all.value.length ? ROW : Math.min(2 * ROW, Math.floor((height - 20) / all.value.length)),
)
const kept = (id: string) => days(of.figures.get(id)?.retentionDays)
/** Days stand in the rows where they differ; those of all alike are said once. */
const alike = computed(() => new Set(all.value.map((c) => kept(c.id))).size === 1)
</script>

<template>
  <div class="weeks" :class="{ alike }" :style="{ '--glance-row': `${row}px` }">
    <p class="line head soft" aria-hidden="true">
      <span />
      <span ref="axis" class="days"
        ><span v-for="d in dayNames" :key="d">{{ d.slice(0, width < 230 ? 1 : 3) }}</span></span
      >
      <span class="number">a day</span>
      <span v-if="!alike" class="number">kept</span>
    </p>
    <ul aria-label="Weeks of the channels">
      <li v-for="c in shown" :key="c.id" class="line">
        <span class="name" :title="c.name"
          ><span class="soft">{{ c.number }}</span> {{ c.name }}</span
        >
        <StillRibbon
          v-if="of.ribbons.get(c.id)"
          :ribbon="of.ribbons.get(c.id)!"
          :duties="of.duties"
          :full="of.figures.get(c.id)?.fullKbps ?? 1"
          :width="width"
          :height="row - 4"
        />
        <span v-else />
        <span class="number">{{ amount(of.figures.get(c.id)?.gigabytesPerDay ?? 0) }}</span>
        <span v-if="!alike" class="number">{{ kept(c.id) }}</span>
      </li>
    </ul>
    <p v-if="all.length > shown.length" class="soft more">
      and {{ count(all.length - shown.length, 'channel') }} more on
      <RouterLink :to="to">Week</RouterLink>
    </p>
  </div>
</template>

<style scoped>
.weeks {
  container-type: inline-size;
  min-width: 0;
  overflow: hidden;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

.line {
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr) 64px 56px;
  gap: 0 12px;
  align-items: center;
  height: var(--glance-row);
  margin: 0;
  font-size: var(--second);
}

.alike .line {
  grid-template-columns: 132px minmax(0, 1fr) 64px;
}

/* In a narrow pane names and figures give way to the week. */
@container (max-width: 440px) {
  .line {
    grid-template-columns: 92px minmax(0, 1fr) 56px 42px;
    gap: 0 8px;
  }

  .alike .line {
    grid-template-columns: 92px minmax(0, 1fr) 56px;
  }
}

.head {
  height: 20px;
  font-size: var(--axis);
}

.days {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
}

.name {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.more {
  margin: 2px 0 0;
  font-size: var(--second);
}
</style>
