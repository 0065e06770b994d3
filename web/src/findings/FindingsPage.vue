<script setup lang="ts">
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import FindingItem from './FindingItem.vue'
import { severities, useFindings, type Severity } from './useFindings'

const site = useSite()
const { count } = useFindings()
const only = ref<Severity>()
const shown = computed(() => site.findings.filter((f) => !only.value || f.severity === only.value))
const names = { error: ['error', 'errors'], warning: ['warning', 'warnings'], hint: ['hint', 'hints'] } as const
const meaning = {
  error: 'footage will be missing, or the law is broken',
  warning: 'it may go wrong',
  hint: 'worth a look',
}
</script>

<template>
  <section class="findings" aria-label="Findings">
    <h1>Findings</h1>
    <div class="filter" role="group" aria-label="Show only">
      <button v-for="s in severities" :key="s" type="button" :aria-pressed="only === s" :title="meaning[s]" @click="only = only === s ? undefined : s">
        <b>{{ count[s] }}</b> {{ names[s][count[s] === 1 ? 0 : 1] }} <span class="soft">· {{ meaning[s] }}</span>
      </button>
    </div>
    <ul v-if="shown.length">
      <FindingItem v-for="f in shown" :key="f.id" :finding="f" linked />
    </ul>
    <p v-else>{{ site.findings.length ? 'None of this kind.' : 'Nothing was found. The checks look at detection, causes, duties, retention and limits after every change.' }}</p>
  </section>
</template>

<style scoped>
.findings {
  height: 100%;
  overflow: auto;
  padding: 20px 28px;
}

h1 {
  font-size: 18px;
}

.filter {
  display: flex;
  gap: 8px;
  margin: 10px 0;
}

.filter button {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 4px 10px;
  cursor: pointer;
}

.filter button[aria-pressed='true'] {
  border-color: var(--base);
  box-shadow: inset 0 0 0 1px var(--base);
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-width: 980px;
}
</style>
