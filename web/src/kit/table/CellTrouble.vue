<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { useTable } from './useTable'

/** What was refused in cells, and what can be done about it. */
const site = useSite()
const table = useTable()
const troubles = computed(() =>
  [...table.refused.entries()].slice(0, 3).map(([key, r]) => {
    const [channel, column] = key.split('\n') as [string, string]
    const c = table.columns.find((x) => x.id === column)
    return `${site.channels.get(channel)?.name ?? channel}, ${c?.title ?? column}: ${r.reason}`
  }),
)
</script>

<template>
  <div v-if="troubles.length || table.rest" class="trouble" role="alert" data-test="cell-trouble">
    <p v-for="t in troubles" :key="t" class="short">{{ t }}</p>
    <p>
      Nothing of it was changed.
      <button v-if="table.rest" type="button" class="act quiet" data-test="set-rest" @click="table.setRest()">
        Set the other {{ count(table.rest.good.rows.length, 'row') }}
      </button>
      <button type="button" class="plain-button link" @click="table.forget()">Drop what was refused</button>
    </p>
  </div>
</template>

<style scoped>
.trouble {
  padding: 4px 16px;
  background: var(--band);
}

.trouble p {
  margin: 0 0 2px;
}
</style>
