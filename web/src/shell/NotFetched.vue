<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { shallowRef, type Component } from 'vue'

/** A page that was not opened before and cannot be fetched: it says so, asks again, and opens when it comes. */
const { load } = defineProps<{ load: () => Promise<{ default: Component }> }>()
const page = shallowRef<Component>()
const tried = shallowRef(0)

async function again() {
  tried.value++
  page.value = (await load().catch(() => undefined))?.default
  if (page.value) pause()
}
const { pause } = useIntervalFn(() => void again(), 2500)
useEventListener(window, 'online', () => void again())
</script>

<template>
  <component :is="page" v-if="page" />
  <section v-else class="not" role="status" data-test="not-fetched">
    <h1>This page cannot be fetched now</h1>
    <p>
      There is no connection to the server, and this page was not opened before. It opens by itself as soon as it can be
      fetched; pages that were opened before work on what they have.
    </p>
    <button type="button" class="act quiet" @click="again">Try now</button>
  </section>
</template>

<style scoped>
.not {
  max-width: 640px;
  padding: 16px;
}

h1 {
  font-size: var(--heading);
}
</style>
