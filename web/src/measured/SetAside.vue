<script setup lang="ts">
import { computed } from 'vue'

import type { MeasuredSite } from '../api/types'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'
import { dateWords, moment } from '../time/dates'

/** What counts for nothing else: times without a log, and days unlike all others. */
const props = defineProps<{ result: NonNullable<MeasuredSite['result']> }>()
const site = useSite()
const zone = computed(() => site.plan?.site.timeZone ?? 'UTC')
const names = (ids: string[]) => {
  const all = ids.map((id) => site.plan?.channels.find((c) => c.id === id)?.name ?? id)
  return all.length > 3 ? `${all.slice(0, 2).join(', ')} and ${all.length - 2} others` : all.join(', ')
}
const activity = (id: string) => site.plan?.activities?.find((a) => a.id === id)?.name ?? id
const any = computed(() => props.result.gaps.length + props.result.oddDays.length > 0)
</script>

<template>
  <section v-if="any" aria-label="Set aside" data-test="set-aside">
    <h2>Set aside</h2>
    <ul>
      <li v-for="g in result.gaps" :key="g.from">
        No log from {{ moment(g.from, zone) }} to {{ moment(g.to, zone) }}: nothing of {{ names(g.channels) }}, where
        about {{ three(g.expected) }} events were expected. It is taken for a time without a log, not for quiet.
      </li>
      <li v-for="o in result.oddDays" :key="o.date + o.activity">
        {{ dateWords(o.date) }}: {{ activity(o.activity) }} {{ three(o.times) }} times as often as on other days ({{
          names(o.channels)
        }}). It is that day alone; was it a special day?
        <RouterLink :to="{ name: 'weeks' }">Special days</RouterLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
h2 {
  margin: 14px 0 2px;
}

ul {
  margin: 0;
  padding-left: 18px;
}

li {
  margin: 4px 0;
  max-width: 760px;
}
</style>
