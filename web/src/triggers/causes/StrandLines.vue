<script setup lang="ts">
import { computed } from 'vue'

import type { TieRow } from './useEnds'

/** Ties as strands between the two sides: full where they act, broken where they never can. */
const { ties, from, to, at } = defineProps<{
  ties: TieRow[]
  from: (key: string) => number | undefined
  to: (key: string) => number | undefined
  at: number // changes whenever a side was laid out anew
}>()
const most = 400 // strands are told apart
const lines = computed(() => {
  void at
  return ties.slice(0, most).flatMap((t) => {
    const [a, b] = [from(t.cause.key), to(t.target.key)]
    if (a === undefined || b === undefined) return []
    return [{ key: t.key, d: `M0 ${a} C60 ${a} 60 ${b} 120 ${b}`, never: !!t.figures.why }]
  })
})
</script>

<template>
  <svg viewBox="0 0 120 100" preserveAspectRatio="none" class="strands" aria-hidden="true" data-test="strands">
    <path v-for="l in lines" :key="l.key" :d="l.d" :class="{ never: l.never }" />
  </svg>
</template>

<style scoped>
.strands {
  width: 100%;
  height: 100px;
  overflow: visible;
  pointer-events: none;
}

path {
  fill: none;
  stroke: var(--motion);
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
}

.never {
  stroke: var(--short);
  stroke-dasharray: 4 4;
}
</style>
