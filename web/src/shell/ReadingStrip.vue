<script setup lang="ts">
import { useSite } from '../site/useSite'

/** Says to who plans nothing here what they may do instead. */
const site = useSite()
</script>

<template>
  <p class="reading" data-test="reading">
    <template v-if="site.role === 'fitter'"
      ><b>You are a fitter of this site.</b> You see all of it, and tick what is done on its sheets; its planners change
      the plan.</template
    >
    <template v-else
      ><b>You are a reader of this site.</b> You see all of it, and can try things out; its planners change the
      plan.</template
    >
  </p>
</template>

<style scoped>
.reading {
  margin: 0;
  padding: 4px 16px;
  border-bottom: 1px solid var(--rule);
  background: var(--sheet);
}
</style>
