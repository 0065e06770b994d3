<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { momentOf } from './clock'
import type { Rehearsing } from './useRehearsal'
import { firstFrom } from './drawTimeline'
import { count } from '../ui/figures'

/** What is in view as a list, for those who do not see the timeline. */
const { r } = defineProps<{ r: Rehearsing }>()
const site = useSite()
const MOST = 200
const words = ['missed', 'kept low', 'kept in full', 'unwanted, no trigger', 'unwanted, a trigger', 'happened']
const list = computed(() => {
  const { from, to } = r.view.value
  const out: { channel: string; name: string; event: number; start: number; fate: number; length: number }[] = []
  for (const c of r.rows.value) {
    for (let k = firstFrom(c.start, from); k < c.start.length && c.start[k]! < to; k++) {
      if (!r.shows(c.fate[k]!)) continue
      out.push({
        channel: c.cause ? '' : c.id,
        name: c.cause ?? site.channels.get(c.id)?.name ?? c.id,
        event: c.event[k]!,
        start: c.start[k]!,
        fate: c.fate[k]!,
        length: c.length[k]!,
      })
      if (out.length > 20_000) return out
    }
  }
  return out.sort((a, b) => a.start - b.start)
})
</script>

<template>
  <section data-test="event-list">
    <h2>In view, {{ count(list.length, 'event') }}</h2>
    <ol>
      <li v-for="e in list.slice(0, MOST)" :key="e.event">
        <button type="button" class="plain-button link" @click="r.point(e)">
          {{ momentOf(r.data.value!, Math.max(0, e.start)) }}, {{ e.name }}</button
        ><span :class="{ short: e.fate === 0 }">{{ `: ${words[e.fate]}` }}</span>
      </li>
    </ol>
    <p v-if="list.length > MOST" class="soft">and {{ list.length - MOST }} more; look closer to see them.</p>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
}

ol {
  margin: 0;
  padding-left: 34px;
}
</style>
