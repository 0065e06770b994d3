<script setup lang="ts">
import { useEventListener, useIntervalFn } from '@vueuse/core'
import { shallowRef, type Component } from 'vue'

/** A page that was not opened before and cannot be fetched: it says so, asks again, and opens when it comes. */
const { load } = defineProps<{ load: () => Promise<{ default: Component }> }>()
const page = shallowRef<Component>()

async function again() {
  page.value = (await load().catch(() => undefined))?.default
  if (page.value) pause()
}
const { pause } = useIntervalFn(() => void again(), 2500)
useEventListener(window, 'online', () => void again())
const reload = () => location.reload()
</script>

<template>
  <component :is="page" v-if="page" />
  <section v-else class="not" role="status" data-test="not-fetched">
    <h1>This page cannot be fetched now</h1>
    <p>
      It was not opened before, and the server did not send it. It opens by itself as soon as it comes; pages that were
      opened before work on what they have. Where Wakefield was renewed meanwhile, load this window again.
    </p>
    <button type="button" class="act quiet" @click="again">Try now</button>
    <button type="button" class="act quiet" @click="reload">Load this window again</button>
  </section>
</template>

<style scoped>
.not {
  max-width: 640px;
  padding: 16px;
}

button {
  margin-right: 8px;
}
</style>
