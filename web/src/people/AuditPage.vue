<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { components } from '../api/schema'
import PeopleFrame from './PeopleFrame.vue'
import { when } from './when'

/** What happened around accounts. Nobody can change it. */
const text = ref('')
const what = ref('')
const from = ref('')
const to = ref('')
const kinds = ['signed-in', 'refused', 'signed-out', 'account', 'role', 'token', 'link', 'export']
const query = computed(() => ({ text: text.value, what: what.value, from: from.value, to: to.value }))
const {
  data: newest,
  failure,
  asking,
} = useAnswer(
  () => JSON.stringify(query.value),
  () => api.GET('/api/audit', { params: { query: query.value } }),
  { keep: true, debounce: 250 },
)
const older = ref<{ of: unknown; lines: components['schemas']['Happened'][] }>()
const lines = computed(() => [
  ...(newest.value ?? []),
  ...(older.value?.of === newest.value ? (older.value?.lines ?? []) : []),
])
const full = computed(() => lines.value.length > 0 && lines.value.length % 100 === 0)
async function more() {
  const of = newest.value
  const before = lines.value.at(-1)!.number
  const told = await ask(api.GET('/api/audit', { params: { query: { ...query.value, before } } }))
  if (told.data && of === newest.value)
    older.value = { of, lines: [...(older.value?.of === of ? older.value!.lines : []), ...told.data] }
}
const file = (format: string) => `/api/audit.${format}?${new URLSearchParams(query.value).toString()}`
</script>

<template>
  <PeopleFrame title="What happened" wide>
    <div class="search">
      <input
        v-model="text"
        type="search"
        aria-label="Find"
        placeholder="Find a name, a site, an address"
        data-test="audit-text"
      />
      <select v-model="what" aria-label="Kind" data-test="audit-what">
        <option value="">everything</option>
        <option v-for="k in kinds" :key="k" :value="k">{{ k }}</option>
      </select>
      <label>From <input v-model="from" type="date" data-test="audit-from" /></label>
      <label>To <input v-model="to" type="date" data-test="audit-to" /></label>
      <a :href="file('csv')" class="link" download>CSV</a>
      <a :href="file('jsonl')" class="link" download>JSON lines</a>
    </div>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-if="newest && !lines.length" class="soft">Nothing of that happened.</p>
    <table v-if="lines.length" :aria-busy="asking" data-test="audit">
      <thead>
        <tr>
          <th>When</th>
          <th>Who</th>
          <th>What</th>
          <th>Site</th>
          <th>More</th>
          <th>Address</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="l in lines" :key="l.number">
          <td class="when">{{ when(l.at) }}</td>
          <td>{{ l.who || 'nobody' }}</td>
          <td>{{ l.what }}</td>
          <td>{{ l.site }}</td>
          <td class="soft">{{ l.detail }}</td>
          <td>{{ l.address }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="full"><button type="button" class="act quiet" @click="more">Older ones</button></p>
  </PeopleFrame>
</template>

<style scoped>
.search {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin: 8px 0;
}

.when {
  white-space: nowrap;
}

td {
  overflow-wrap: anywhere;
}
</style>
