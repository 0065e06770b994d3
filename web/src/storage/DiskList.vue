<script setup lang="ts">
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import { gigabytes, three } from '../ui/figures'
import SegmentChoice from '../ui/SegmentChoice.vue'

/** Where the disk goes: by channel or by group, most first. */
const site = useSite()
const by = ref<'channel' | 'group'>('channel')
const rows = computed(() => {
  const out = new Map<string, { name: string; gb: number; days?: number | null }>()
  for (const c of site.plan?.channels ?? []) {
    const f = site.figures.get(c.id)
    if (c.noCamera || !f) continue
    const [key, name] =
      by.value === 'channel' ? [c.id, `${c.number} ${c.name}`] : [c.group ?? '', c.group || 'no group']
    const row = out.get(key) ?? { name, gb: 0, days: by.value === 'channel' ? f.retentionDays : undefined }
    row.gb += f.gigabytesPerDay
    out.set(key, row)
  }
  return [...out].map(([key, row]) => ({ key, ...row })).sort((a, b) => b.gb - a.gb)
})
const sum = computed(() => rows.value.reduce((s, r) => s + r.gb, 0))
const share = (gb: number) => (sum.value ? (100 * gb) / sum.value : 0)
</script>

<template>
  <section data-test="disk-list">
    <h2>Where the disk goes</h2>
    <SegmentChoice
      v-model="by"
      label="By"
      :ways="[
        ['channel', 'Channels'],
        ['group', 'Groups'],
      ]"
    />
    <table>
      <thead>
        <tr class="soft">
          <th scope="col">{{ by === 'channel' ? 'channel' : 'group' }}</th>
          <th scope="col" class="number">a day</th>
          <th scope="col" class="number">share</th>
          <th v-if="by === 'channel'" scope="col" class="number">days</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.key" :data-row="r.key">
          <th scope="row">
            {{ r.name
            }}<i :style="{ width: `${(share(r.gb) / (share(rows[0]!.gb) || 1)) * 100}%` }" aria-hidden="true" />
          </th>
          <td class="number">{{ gigabytes(r.gb) }}</td>
          <td class="number soft">{{ three(share(r.gb)) }} %</td>
          <td v-if="by === 'channel'" class="number soft">{{ r.days == null ? '–' : three(r.days) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
  margin-top: 6px;
}

thead {
  font-size: 12px;
}

thead .number {
  width: auto;
  text-align: right;
}

th {
  text-align: left;
  font-weight: 400;
  width: 46%;
}

i {
  display: block;
  height: 3px;
  background: var(--base);
}

td {
  padding: 2px 0 3px 10px;
  vertical-align: top;
}
</style>
