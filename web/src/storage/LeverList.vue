<script setup lang="ts">
import type { ReachLever } from '../api/types'
import { useSite } from '../site/useSite'
import { change } from '../ui/figures'

/** Single changes, the best of each channel, most days for what is lost first. */
defineProps<{ levers: ReachLever[] }>()
const site = useSite()
</script>

<template>
  <template v-if="levers.length">
    <h2>One change by itself</h2>
    <table data-test="levers">
      <thead>
        <tr>
          <th scope="col">Channel</th>
          <th scope="col">change</th>
          <th scope="col" class="number">days</th>
          <th scope="col" class="number">events lost a day</th>
          <th scope="col"><span class="visually-hidden">make it</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in levers" :key="l.channel" :data-lever="l.channel">
          <th scope="row">{{ site.channels.get(l.channel)?.name }}</th>
          <td>{{ (l.words ?? []).join('; ') }}</td>
          <td class="number">{{ change(l.moreDays) || '0' }}</td>
          <td class="number">{{ change(l.lostPerDay) || 'none' }}</td>
          <td>
            <button type="button" class="plain-button link" @click="site.change(l.edits ?? [])">Do it</button>
          </td>
        </tr>
      </tbody>
    </table>
  </template>
</template>

<style scoped>
table {
  border-collapse: collapse;
  max-width: 860px;
}

td,
th {
  padding: 2px 16px 2px 0;
  text-align: left;
  font-weight: 400;
  vertical-align: baseline;
}

.number {
  text-align: right;
}

td:last-child {
  white-space: nowrap;
}

h2 {
  margin: 14px 0 2px;
}

thead th {
  color: var(--soft);
  font-size: 12px;
}

tbody tr {
  border-top: 1px solid var(--rule);
}
</style>
