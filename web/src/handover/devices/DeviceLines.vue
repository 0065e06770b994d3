<script setup lang="ts">
import { computed } from 'vue'

import type { DeviceLine } from '../../api/types'

/** Differences, one a line, each to be taken or set, or left: all, those of one channel, or single ones. */
const props = defineProps<{ lines: DeviceLine[]; chosen: ReadonlySet<string> }>()
const emit = defineEmits<{ choose: [id: string, on: boolean]; only: [ids: string[]] }>()
const all = computed(() => props.lines.every((l) => props.chosen.has(l.id)))
const toggle = () => emit('only', all.value ? [] : props.lines.map((l) => l.id))
const one = (l: DeviceLine) =>
  emit(
    'only',
    props.lines.filter((x) => x.number === l.number && x.about === l.about).map((x) => x.id),
  )
</script>

<template>
  <div class="scroll">
    <table data-test="device-lines">
      <thead>
        <tr>
          <th scope="col">
            <input type="checkbox" :checked="all" aria-label="All" data-test="all-lines" @change="toggle" />
          </th>
          <th scope="col">Where</th>
          <th scope="col">What</th>
          <th scope="col">At the device</th>
          <th scope="col">In the plan</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in lines" :key="l.id" :data-line="l.id" :class="{ missing: l.missing }">
          <td>
            <input
              type="checkbox"
              :checked="chosen.has(l.id)"
              :aria-label="`${l.about}, ${l.what}`"
              @change="$emit('choose', l.id, ($event.target as HTMLInputElement).checked)"
            />
          </td>
          <td>
            <button type="button" class="plain-button where" title="Choose only this" @click="one(l)">
              <span v-if="l.number" class="soft">{{ l.number }}</span><span>{{ l.about }}</span>
            </button>
          </td>
          <td>{{ l.what }}</td>
          <td>{{ l.device }}</td>
          <td>
            {{ l.plan }}
            <span v-if="l.missing" class="short block">footage is missing because of it</span>
            <span v-if="!l.part" class="soft block">cannot be set from here</span>
            <span v-else-if="!l.take?.length" class="soft block">a plan cannot say it</span>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  width: 100%;
  border-collapse: collapse;
}

th {
  text-align: left;
  font-weight: 400;
  font-size: var(--second);
}

th,
td {
  padding: 5px 8px 5px 0;
  border-bottom: 1px solid var(--rule);
  vertical-align: top;
}

.where {
  display: flex;
  gap: 6px;
  text-align: left;
}

.block {
  display: block;
  font-size: var(--second);
}

input {
  width: 16px;
  height: 16px;
}
</style>
