<script setup lang="ts">
import { computed } from 'vue'

import FindingList from '../../findings/FindingList.vue'
import { useSite } from '../../site/useSite'

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
  <FindingList :findings="findings" small class="here" />
</template>

<style scoped>
.here {
  margin: 4px 0 8px;
}
</style>
