<script setup lang="ts">
import { ElDialog } from 'element-plus'
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { count } from '../ui/figures'

/** What is found at several sites, one below the other. */
const props = defineProps<{ sites: string[] }>()
const emit = defineEmits<{ close: [] }>()
const { data, failure } = useAnswer(
  () => props.sites,
  () => api.POST('/api/sites/findings', { body: { sites: props.sites } }),
)
const groups = computed(() => {
  const by = new Map<string, { site: string; name: string; found: NonNullable<typeof data.value>['found'] }>()
  for (const f of data.value?.found ?? []) {
    if (!by.has(f.site)) by.set(f.site, { site: f.site, name: f.name, found: [] })
    by.get(f.site)!.found.push(f)
  }
  return [...by.values()]
})
const n = (of: string) => (data.value?.found ?? []).filter((f) => f.severity === of).length
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="`What is found at ${count(sites.length, 'site')}`"
    width="min(880px, 94vw)"
    @close="emit('close')"
  >
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else-if="!data" class="soft">Looking…</p>
    <template v-else>
      <p data-test="found-sum">
        {{ count(n('error'), 'error') }}, {{ count(n('warning'), 'warning') }}, {{ count(n('hint'), 'hint') }}.
        <span v-if="data.left.length" class="short"
          >Not estimated as they are yet, so not among these: {{ data.left.join(', ') }}.</span
        >
      </p>
      <div class="list" tabindex="0" role="region" aria-label="Findings">
        <section v-for="g in groups" :key="g.site">
          <h3>
            <RouterLink :to="`/sites/${g.site}/findings`">{{ g.name }}</RouterLink>
          </h3>
          <ul>
            <li v-for="f in g.found" :key="f.id">
              <span :class="f.severity === 'error' ? 'short' : 'soft'">{{ f.severity }}</span> {{ f.sentence }}
            </li>
          </ul>
        </section>
        <p v-if="!groups.length" class="soft">Nothing is found.</p>
      </div>
    </template>
  </ElDialog>
</template>

<style scoped>
.list {
  max-height: 60vh;
  overflow: auto;
}

h3 {
  font-size: var(--text);
  margin: 12px 0 2px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: 8px;
  padding: 2px 0;
}
</style>
