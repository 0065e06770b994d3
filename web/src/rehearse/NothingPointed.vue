<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { whole } from '../ui/figures'
import { MISSED } from './rows'
import type { Rehearsing } from './useRehearsal'

/** What can be learnt of an event, where none is pointed at: how many were missed, and by which cameras. */
const { r } = defineProps<{ r: Rehearsing }>()
const site = useSite()
const missed = computed(() => r.data.value?.sums.missed ?? 0)
const worst = computed(() =>
  r.cameras.value
    .map((c) => ({
      id: c.id,
      missed: c.fate.filter((f) => f === MISSED).length,
      all: c.fate.filter((f) => f <= 2).length,
    }))
    .filter((c) => c.missed)
    .sort((a, b) => b.missed - a.missed)
    .slice(0, 6),
)
</script>

<template>
  <div data-test="nothing-pointed">
    <h2>What became of an event</h2>
    <p>
      Point at an event on the timeline: what happened, which gates it passed, why it was kept or not, and what it
      caused. Point at footage to ask why it is there.
    </p>
    <template v-if="worst.length">
      <table>
        <thead>
          <tr>
            <th>Most missed</th>
            <th class="number">missed</th>
            <th class="number">of events</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in worst" :key="c.id">
            <td>{{ site.channels.get(c.id)?.name }}</td>
            <td class="number">{{ whole(c.missed) }}</td>
            <td class="number">{{ whole(c.all) }}</td>
          </tr>
        </tbody>
      </table>
      <button type="button" class="act quiet" data-test="first-missed" @click="r.next((fate) => fate === MISSED)">
        Show the first of {{ whole(missed) }} missed
      </button>
    </template>
    <p v-else-if="r.data.value?.sums.wanted">No event was missed in these days.</p>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  margin: 0 0 12px;
}

th {
  text-align: left;
  font-size: var(--second);
  color: var(--soft);
}

th.number {
  text-align: right;
}

td {
  height: var(--row);
  border-top: 1px solid var(--rule);
}
</style>
