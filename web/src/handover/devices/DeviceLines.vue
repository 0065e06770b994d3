<script setup lang="ts">
import type { DeviceLine } from '../../api/types'

/** Differences, one a line, each to be taken or set, or left. */
defineProps<{ lines: DeviceLine[]; chosen: ReadonlySet<string> }>()
defineEmits<{ choose: [id: string, on: boolean] }>()
</script>

<template>
  <div class="scroll">
    <table data-test="device-lines">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">Chosen</span></th>
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
            <div class="where">
              <span v-if="l.number" class="soft">{{ l.number }}</span><span>{{ l.about }}</span>
            </div>
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
  font-weight: 500;
  font-size: 12px;
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
}

.block {
  display: block;
  font-size: 12px;
}

input {
  width: 16px;
  height: 16px;
}
</style>
