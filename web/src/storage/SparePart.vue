<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Spare } from '../api/types'
import { useSite } from '../site/useSite'
import { days, three } from '../ui/figures'

/** What pools with room for far more than is required could be spent on, change by change; nothing where none do. */
const { ready } = defineProps<{ who: (channels: string[]) => string; ready: boolean }>()
const site = useSite()
const { data, failure } = useAnswer(
  () => [site.stamp, ready],
  () => (ready ? api.GET('/api/plans/{id}/spare', { params: site.here }) : undefined), // it goes by the same choices
  { keep: true },
)
const poolName = (id: string) => site.plan?.recorders.flatMap((r) => r.pools).find((p) => p.id === id)?.name ?? id
const pools = computed(() => [...new Set((data.value ?? []).map((s) => poolName(s.pool)))].join(', '))

/** What is gained by it, in words. */
function gain(s: Spare): string {
  if (!s.channels?.length) {
    if (s.price == null) return 'no price known'
    return `${three(s.price)} ${site.plan?.prices?.currency ?? ''} less`
  }
  if (Math.abs(s.wonPerDay) < 0.005) return 'no more events'
  return s.wonPerDay > 0 ? `${three(s.wonPerDay)} fewer events a day missed` : `${three(-s.wonPerDay)} more`
}
</script>

<template>
  <details v-if="data?.length || failure" data-test="spare">
    <summary>Room to spare on {{ pools }}: what it could be spent on</summary>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else class="soft">Each of these by itself, and what is required is still kept, at the worst hour and date.</p>
    <table>
      <thead>
        <tr>
          <th scope="col">Pool</th>
          <th scope="col">change</th>
          <th scope="col" class="number">days then</th>
          <th scope="col">gain</th>
          <th scope="col"><span class="visually-hidden">apply it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(s, i) in data ?? []" :key="i" :data-spare="s.pool">
          <th scope="row">{{ poolName(s.pool) }}</th>
          <td>{{ s.channels?.length ? `${who(s.channels)}: ` : '' }}{{ (s.words ?? []).join('; ') }}</td>
          <td class="number">{{ days(s.days) }}</td>
          <td>{{ gain(s) }}</td>
          <td>
            <button type="button" class="plain-button link" data-test="spend" @click="site.change(s.edits ?? [])">
              Apply
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </details>
</template>

<style scoped src="./changes.css"></style>

<style scoped>
details {
  margin-top: 14px;
}

summary {
  cursor: pointer;
  font-weight: 600;
}
</style>
