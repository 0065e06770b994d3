<script setup lang="ts">
import type { Finding } from '../api/types'
import FindingItem from './FindingItem.vue'
import { useEffects } from './useEffects'

/** Findings one under the other, with their fixes tried. */
const props = defineProps<{ findings: Finding[]; on?: string; linked?: boolean; small?: boolean }>()
const tried = useEffects(() => props.findings)
</script>

<template>
  <ul v-if="findings.length">
    <FindingItem
      v-for="f in findings"
      :key="f.id"
      :finding="f"
      :tried="tried"
      :on="on"
      :linked="linked"
      :class="{ small }"
    />
  </ul>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
