<script setup lang="ts">
import { computed } from 'vue'

import { useTaken } from './useTaken'
import { useWaiting } from './useWaiting'

/** The site, and what waits to be sent: that is always said. */
const { taken } = useTaken()
const { due, refused, full, connected, busy } = useWaiting()
const results = (n: number) => (n === 1 ? '1 result' : `${n} results`)
const state = computed(() => {
  const kept = due.value.length ? `${results(due.value.length)} kept here` : 'nothing waits'
  if (!connected.value) return `no network, ${kept}`
  if (due.value.length) return busy.value ? `sending ${results(due.value.length)}…` : `${kept}, to be sent`
  return 'all is sent'
})
</script>

<template>
  <header class="top">
    <h1>{{ taken?.test.site ?? 'Wakefield on site' }}</h1>
    <p class="state" role="status" data-test="state">
      <template v-if="taken">revision {{ taken.test.version }} · </template>{{ state }}
    </p>
    <p v-if="full" role="alert" class="short" data-test="full">
      The phone has no room. What you note now is kept as long as this page is open: free some room, or find a network.
    </p>
    <p v-if="refused.length" class="short" role="alert">
      <a href="#more"
        >{{ refused.length === 1 ? '1 was not taken' : `${refused.length} were not taken` }} by the server: look why</a
      >
    </p>
  </header>
</template>

<style scoped>
.state {
  margin: 0;
  color: var(--soft);
  font-size: 14px;
}
</style>
