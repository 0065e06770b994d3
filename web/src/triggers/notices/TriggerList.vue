<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { Channel, TriggerLine } from '../../api/types'
import { useSite } from '../../site/useSite'
import { three } from '../../ui/figures'
import SegmentChoice from '../../ui/SegmentChoice.vue'

/** Every channel with what share of its wanted events is on disk, and how many of them start a recording. */
const here = defineModel<string>({ required: true })
const site = useSite()
const search = ref('')
const order = ref<'trouble' | 'groups'>('groups')
const { data: lines, failure } = useAnswer(
  () => site.stamp,
  () => api.GET('/api/plans/{id}/triggers', { params: site.here }),
  { debounce: 60, keep: true },
)

const starts = (l: TriggerLine) => (l.happensPerDay ? l.arrivesPerDay / l.happensPerDay : undefined)
/** What matters first: the share that is on disk, by whatever layer. */
const onDisk = (l: TriggerLine) => (l.happensPerDay ? 1 - l.missedPerDay / l.happensPerDay : undefined)
/** Whether much is kept by no layer: a channel that records round the clock needs no trigger. */
const missed = (l: TriggerLine) => l.missedPerDay > 0.05 * l.happensPerDay
const shown = computed(() => {
  const words = search.value.toLowerCase()
  const rows = (lines.value ?? []).flatMap((line) => {
    const channel = site.channels.get(line.channel)
    const is = channel && `${channel.number} ${channel.name} ${channel.group ?? ''}`.toLowerCase().includes(words)
    return is ? [{ line, channel }] : []
  })
  const worst = ({ line }: { line: TriggerLine }) => -line.missedPerDay / (line.happensPerDay || Infinity)
  return order.value === 'trouble' ? rows.toSorted((a, b) => worst(a) - worst(b)) : rows
})
const groups = computed(() => {
  const by = new Map<string, { line: TriggerLine; channel: Channel }[]>()
  for (const row of shown.value) {
    const name = order.value === 'trouble' ? '' : (row.channel.group ?? '')
    by.set(name, [...(by.get(name) ?? []), row])
  }
  return [...by]
})
</script>

<template>
  <aside class="list" aria-label="Channels and what they catch">
    <input
      v-model="search"
      type="search"
      placeholder="Find a channel"
      aria-label="Find a channel"
      data-test="find-channel"
    />
    <SegmentChoice
      v-model="order"
      label="Order"
      :ways="[
        ['groups', 'By groups'],
        ['trouble', 'By trouble'],
      ]"
    />
    <p v-if="failure" class="short">{{ failure }}</p>
    <p v-if="lines && !shown.length" class="soft">No channel is called “{{ search }}”.</p>
    <section v-for="[group, rows] in groups" :key="group">
      <h2 v-if="group" class="soft">{{ group }}</h2>
      <button
        v-for="{ line, channel } in rows"
        :key="line.channel"
        type="button"
        class="plain-button row"
        :class="{ here: here === line.channel }"
        :aria-pressed="here === line.channel"
        :data-line="line.channel"
        @click="here = line.channel"
      >
        <span class="name">{{ channel.number }} {{ channel.name }}</span>
        <b v-if="onDisk(line) !== undefined" :class="{ short: missed(line) }"
          >{{ three(100 * onDisk(line)!) }} % on disk</b
        >
        <span v-else class="soft">nothing wanted</span>
        <i class="bar" aria-hidden="true"
          ><i
            :class="{ low: missed(line) && (onDisk(line) ?? 1) < 0.5 }"
            :style="{ width: `${100 * (onDisk(line) ?? 0)}%` }"
        /></i>
        <span v-if="line.why" class="unwanted" :class="missed(line) ? 'short' : 'soft'">{{ line.why }}</span>
        <span v-else-if="starts(line) !== undefined" class="soft unwanted"
          >{{ three(100 * starts(line)!) }} % start a recording</span
        >
        <span v-if="line.unwantedTriggersPerDay >= 0.5" class="soft unwanted"
          >{{ three(line.unwantedTriggersPerDay) }} a day by nuisance</span
        >
      </button>
    </section>
  </aside>
</template>

<style scoped>
.list {
  overflow: auto;
  padding: 9px 0 9px;
  border-right: 1px solid var(--rule);
}

input {
  width: calc(100% - 20px);
  margin: 0 10px 6px;
}

.list :deep(.el-segmented),
p {
  margin: 0 10px 6px;
}

h2 {
  font-size: var(--text);
  margin: 8px 10px 0;
  font-weight: 400;
}

.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  width: 100%;
  padding: 4px 10px 5px;
  border-left: 3px solid transparent;
  text-align: left;
}

.row:hover {
  background: var(--band);
}

.row.here {
  background: var(--selected);
  border-left-color: var(--base);
}

.name {
  overflow-wrap: anywhere;
}

.row b {
  max-width: 96px;
  text-align: right;
  line-height: 1.25;
}

.bar {
  grid-column: 1 / -1;
  height: 3px;
  background: var(--rule);
}

.bar i {
  display: block;
  height: 100%;
  background: var(--soft);
}

.bar .low {
  background: var(--short);
}

.unwanted {
  grid-column: 1 / -1;
  font-size: var(--second);
}
</style>
