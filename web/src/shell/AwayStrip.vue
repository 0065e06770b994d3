<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { count } from '../ui/figures'

/** Says over every page, on any screen, that nothing can be saved now, what waits, and of when it is what is shown. */
const site = useSite()
const clock = computed(() => site.since.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }))
</script>

<template>
  <p class="away" role="alert" data-test="away">
    <template v-if="site.waiting.length"
      ><b>No connection: {{ count(site.waiting.length, 'change') }} not saved.</b>
      {{ site.waiting.length === 1 ? 'It is' : 'They are' }} waiting in this page, tried again all the time; do not
      close it. The figures are those of revision {{ site.version }}.</template
    ><template v-else
      ><b>No connection.</b> The plan is shown as it was at {{ clock }}, at revision {{ site.version }}. What you change
      waits in this page, and is saved when there is one again.</template
    >
  </p>
</template>

<style scoped>
.away {
  margin: 0;
  padding: 5px 16px;
  background: var(--short);
  color: var(--sheet);
}
</style>
