<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { amount, count, three } from '../ui/figures'
import SegmentChoice from '../ui/SegmentChoice.vue'

/** Where the disk goes: by channel, group, duty or hour of the day, most first. Channels and groups can be picked. */
const {
  bare,
  most = 0,
  pick = undefined,
} = defineProps<{
  bare?: boolean // in a narrow pane: without a heading, and without what stands beside it anyway
  most?: number // so many rows, and the rest together; 0 for all
  pick?: (channels: string[]) => void
}>()
const site = useSite()
type By = 'channel' | 'group' | 'duty' | 'hour'
const by = ref<By>('channel')
const { data: use } = useAnswer(
  () => [site.stamp, by.value === 'duty' || by.value === 'hour'],
  () =>
    by.value === 'duty' || by.value === 'hour' ? api.GET('/api/plans/{id}/disk', { params: site.here }) : undefined,
)
interface Row {
  key: string
  name: string
  gb: number
  also: string
}
const two = (n: number) => String(n).padStart(2, '0')
const rows = computed<Row[]>(() => {
  if (by.value === 'duty')
    return (use.value?.duties ?? []).map((d) => ({
      key: d.id,
      name: d.name,
      gb: d.gigabytesPerDay,
      also: count(d.channels, 'channel'),
    }))
  if (by.value === 'hour')
    return (use.value?.hours ?? [])
      .map((gb, h) => ({ key: two(h), name: `${two(h)}:00 to ${two(h + 1)}:00`, gb, also: '' }))
      .sort((a, b) => b.gb - a.gb)
  const out = new Map<string, Row>()
  for (const c of site.plan?.channels ?? []) {
    const f = site.figures.get(c.id)
    if (c.noCamera || !f) continue
    const isGroup = by.value === 'group'
    const key = isGroup ? (c.group ?? '') : c.id
    const row = out.get(key) ?? {
      key,
      name: isGroup ? c.group || 'no group' : c.name,
      gb: 0,
      also: isGroup || f.retentionDays == null ? '' : three(f.retentionDays),
    }
    row.gb += f.gigabytesPerDay
    out.set(key, row)
  }
  return [...out.values()].sort((a, b) => b.gb - a.gb)
})
/** The channels of a row. */
const members = (key: string) =>
  by.value === 'channel'
    ? [key]
    : (site.plan?.channels ?? []).filter((c) => !c.noCamera && (c.group ?? '') === key).map((c) => c.id)
const sum = computed(() => rows.value.reduce((s, r) => s + r.gb, 0))
const shown = computed(() => (most ? rows.value.slice(0, most) : rows.value))
const rest = computed(() => rows.value.slice(shown.value.length))
const largest = computed(() => Math.max(0, ...rows.value.map((r) => r.gb)) || 1)
const share = (gb: number) => (sum.value ? (100 * gb) / sum.value : 0)
const heads: Record<By, [string, string]> = {
  channel: ['channel', 'days'],
  group: ['group', ''],
  duty: ['duty', 'on'],
  hour: ['hour of the day', ''],
}
</script>

<template>
  <section data-test="disk-list" :class="{ bare }">
    <h2 v-if="!bare">Where the disk goes</h2>
    <SegmentChoice
      v-model="by"
      label="By"
      :ways="[
        ['channel', 'Channels'],
        ['group', 'Groups'],
        ['duty', 'Duties'],
        ['hour', 'Hours'],
      ]"
    />
    <table>
      <thead>
        <tr class="soft">
          <th scope="col">{{ heads[by][0] }}</th>
          <th scope="col" class="number">a day</th>
          <th scope="col" class="number">share</th>
          <th v-if="heads[by][1] && !bare" scope="col" class="number">{{ heads[by][1] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in shown" :key="r.key" :data-row="r.key">
          <th scope="row">
            <button
              v-if="pick && (by === 'channel' || by === 'group')"
              type="button"
              class="plain-button"
              :title="`Select ${r.name}`"
              @click="pick(members(r.key))"
            >
              {{ r.name }}</button><template v-else>{{ r.name }}</template
            ><i :style="{ width: `${(100 * r.gb) / largest}%` }" aria-hidden="true" />
          </th>
          <td class="number">{{ amount(r.gb) }}</td>
          <td class="number soft">{{ three(share(r.gb)) }} %</td>
          <td v-if="heads[by][1] && !bare" class="number soft">{{ r.also || '–' }}</td>
        </tr>
        <tr v-if="rest.length" class="soft">
          <th scope="row">{{ count(rest.length, 'other') }}</th>
          <td class="number">{{ amount(rest.reduce((s, r) => s + r.gb, 0)) }}</td>
          <td class="number">{{ three(share(rest.reduce((s, r) => s + r.gb, 0))) }} %</td>
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
  font-size: var(--second);
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

.bare :deep(.el-segmented__item) {
  padding: 0 5px;
}

.bare td {
  padding-left: 5px;
}

.bare th {
  width: auto;
}

button {
  text-align: left;
}

button:hover {
  color: var(--base);
}

i {
  display: block;
  height: 3px;
  background: var(--soft);
}

td {
  padding: 2px 0 3px 10px;
  vertical-align: top;
}
</style>
