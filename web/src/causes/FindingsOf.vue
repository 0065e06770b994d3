<script setup lang="ts">
import { computed } from 'vue'

import FindingItem from '../findings/FindingItem.vue'
import { useSite } from '../site/useSite'

/** Open findings about one place of the plan, or of some rules. */
const props = defineProps<{ at?: string; rules?: string[] }>()
const site = useSite()
const findings = computed(() =>
  site.findings.filter(
    (f) => !f.accepted && (props.rules ? props.rules.includes(f.rule) : !!props.at && f.path.startsWith(props.at)),
  ),
)
</script>

<template>
  <ul v-if="findings.length">
    <FindingItem v-for="f in findings" :key="f.id" :finding="f" class="small" />
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0 8px;
  padding: 0;
  max-width: 1180px;
}
</style>
