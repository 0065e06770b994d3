<script setup lang="ts">
import { computed } from 'vue'

import type { Finding } from '../api/types'
import FindingItem from './FindingItem.vue'
import { useEffects, type Tried } from './useEffects'

/** Findings one under the other, with their fixes tried. */
const props = defineProps<{
  findings: Finding[]
  on?: string
  linked?: boolean
  small?: boolean
  tried?: Tried // by whoever shows several lists
}>()
const own = useEffects(() => (props.tried ? [] : props.findings))
const effects = computed(() => props.tried ?? own)
</script>

<template>
  <ul v-if="findings.length">
    <FindingItem
      v-for="f in findings"
      :key="f.id"
      :finding="f"
      :tried="effects"
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
