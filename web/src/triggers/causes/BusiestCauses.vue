<script setup lang="ts">
import { computed } from 'vue'

import type { useEnds } from './useEnds'
import { aDay, kindNames } from './words'

type Cause = ReturnType<typeof useEnds>['causes']['value'][number]

/** What happens most often at the site, as far as the plan says, each with a bar and how often a day. */
const { causes, known } = defineProps<{ causes: Cause[]; known: boolean }>()
const emit = defineEmits<{ pick: [key: string] }>()
const most = 6
const listed = computed(() =>
  causes
    .flatMap((c) => (c.line.happensPerDay && !c.line.when.area ? [{ ...c, perDay: c.line.happensPerDay }] : []))
    .sort((a, b) => b.perDay - a.perDay)
    .slice(0, most),
)
const wide = (perDay: number) => `${(100 * perDay) / (listed.value[0]?.perDay ?? 1)}%`
</script>

<template>
  <ol v-if="listed.length" data-test="busiest">
    <li v-for="c in listed" :key="c.key">
      <button type="button" class="plain-button" :data-busy="c.key" @click="emit('pick', c.key)">
        <span
          >{{ c.name }} <span class="soft">{{ kindNames[c.line.kind].toLowerCase() }}</span></span
        >
        <span class="number">{{ aDay(c.perDay) }}</span>
        <i :style="{ width: wide(c.perDay) }" />
      </button>
    </li>
  </ol>
  <p v-else-if="known" data-test="busiest-none">
    How often anything happens is not said yet; it follows from
    <RouterLink :to="{ name: 'kit', params: { part: 'activities' } }">activities</RouterLink> in front of the cameras.
  </p>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}

button {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  width: 100%;
  min-height: var(--row);
  align-items: end;
  border-bottom: 1px solid var(--rule);
}

button:hover {
  background: var(--selected);
}

i {
  grid-column: 1 / -1;
  height: 3px;
  background: var(--soft);
}
</style>
