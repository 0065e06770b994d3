<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { components } from '../api/schema'

/** What is found inside sites: channels, recorders, addresses, findings. */
type Hit = components['schemas']['Hit']
const props = defineProps<{ text: string }>()

const asks = computed(() => props.text.trim().length > 1)
const { data, failure } = useAnswer(
  () => props.text.trim(),
  () => (asks.value ? api.GET('/api/sites/search', { params: { query: { text: props.text.trim() } } }) : undefined),
  { keep: true, debounce: 150 },
)
const inside = computed(() =>
  asks.value
    ? (data.value?.hits ?? []).filter((h) => ['channel', 'recorder', 'address', 'finding'].includes(h.kind))
    : [],
)
const FEW = 6
const all = ref(false)
watch(
  () => props.text,
  () => (all.value = false),
)

function to(h: Hit) {
  const params = { id: h.site }
  if (h.kind === 'finding') return { name: 'findings', params }
  if (h.kind === 'channel') return { name: 'week', params, query: { channels: h.id } }
  return { name: 'kit', params }
}
</script>

<template>
  <section v-if="inside.length || failure" class="hits" aria-label="Found inside sites" data-test="hits">
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <ul>
      <li v-for="(h, i) in all ? inside : inside.slice(0, FEW)" :key="i">
        <RouterLink :to="to(h)" :title="h.text"
          ><span class="soft">{{ h.kind }}</span> <b>{{ h.text }}</b> <span class="soft">{{ h.name }}</span></RouterLink
        >
      </li>
    </ul>
    <p v-if="inside.length > FEW && !all">
      <button type="button" class="plain-button" data-test="all-hits" @click="all = true">
        {{ inside.length - FEW }} more
      </button>
    </p>
    <p v-else-if="data?.more" class="soft">There is more; add a word.</p>
  </section>
</template>

<style scoped>
.hits {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 4px 12px;
  max-height: 34vh;
  overflow: auto;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

a {
  display: grid;
  grid-template-columns: 64px minmax(0, 480px) minmax(0, 1fr);
  gap: 8px;
  padding: 2px 0;
  text-decoration: none;
}

a > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

a b {
  font-weight: 400;
}

a:hover b {
  text-decoration: underline;
}

p {
  margin: 2px 0;
}

button {
  color: var(--base);
}
</style>
