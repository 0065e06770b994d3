<script setup lang="ts">
import { useTitle } from '@vueuse/core'

import TopBar from '../shell/TopBar.vue'

/** An address of nothing: says so, and where to go. */
useTitle('Nothing here · Wakefield')
</script>

<template>
  <TopBar />
  <main class="nowhere" data-test="nowhere">
    <h1>There is nothing at this address</h1>
    <p>
      <code>{{ $route.fullPath }}</code> is no page of Wakefield. It may have been copied without its end, or typed
      wrong.
    </p>
    <p><RouterLink to="/">All sites</RouterLink></p>
  </main>
</template>

<style scoped>
.nowhere {
  max-width: 560px;
  margin: 48px auto;
  padding: 0 16px;
}

code {
  overflow-wrap: anywhere;
}
</style>
