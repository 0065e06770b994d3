<script setup lang="ts">
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'

/** Says over every page, on any screen, that nothing can be saved now, and what waits. */
const site = useSite()
</script>

<template>
  <p class="away" role="alert" data-test="away">
    <b>No connection: {{ count(site.waiting.length, 'change') }} not saved.</b>
    {{ site.waiting.length === 1 ? 'It is' : 'They are' }} waiting in this page, tried again all the time; do not close
    it. The figures are those of revision {{ site.version }}.
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
