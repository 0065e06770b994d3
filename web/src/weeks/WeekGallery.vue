<script setup lang="ts">
import { useElementSize, useMediaQuery } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'

import type { Week } from '../api/types'
import { useHand } from '../hand/useHand'
import { useSite } from '../site/useSite'
import { dayNames } from '../time/week'
import CalendarImport from './CalendarImport.vue'
import WeekEntry from './WeekEntry.vue'

/** The named weeks as small ribbons. */
const site = useSite()
const hand = useHand()
const axis = useTemplateRef('axis')
const { width } = useElementSize(axis)
const problem = ref('')
const reading = useMediaQuery('(max-width: 500px)') // a phone
const weeks = computed(() => site.plan?.weeks ?? [])
const ownWeeks = computed(() => (site.plan?.channels ?? []).filter((c) => typeof c.week !== 'string' && !c.noCamera))

async function add(week: Omit<Week, 'id'>) {
  const [id] = (await site.freeIds('week', week.name)) ?? []
  if (id) site.change([{ setWeek: { week: { ...week, id } } }])
}
</script>

<template>
  <div class="gallery">
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <p v-if="!weeks.length" class="soft">
      A named week is shared by the channels that follow it: painted once, it applies to all of them. Make one here, or
      save a channel's week as one from its row's menu on the Week page.
    </p>
    <div class="head">
      <span />
      <div ref="axis" class="days">
        <span v-for="d in dayNames" :key="d">{{ d.slice(0, 3) }}</span>
      </div>
    </div>
    <WeekEntry
      v-for="w in weeks"
      :key="w.id"
      :week="w"
      :width="width"
      @problem="problem = $event"
      @copy="add({ ...w, name: `${w.name} (copy)` })"
    />
    <button
      type="button"
      class="act quiet"
      data-test="new-week"
      @click="add({ name: `Week ${weeks.length + 1}`, otherwise: hand.duty })"
    >
      New week: {{ site.duties.get(hand.duty)?.name }} throughout
    </button>
    <CalendarImport v-if="!reading" />
    <p v-if="ownWeeks.length" class="soft">
      {{ ownWeeks.map((c) => c.name).join(', ') }}
      {{ ownWeeks.length === 1 ? 'has a week of its' : 'have weeks of their' }} own.
    </p>
  </div>
</template>

<style scoped>
.head,
.gallery :deep(.entry) {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 2px 18px;
}

.days {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  font-weight: 600;
}

p {
  margin: 2px 0;
}

.act {
  margin-top: 10px;
}

@media (max-width: 760px) {
  .head,
  .gallery :deep(.entry) {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 500px) {
  .act {
    display: none;
  }
}
</style>
