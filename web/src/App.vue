<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'

import CommandBox from './shell/CommandBox.vue'
import { useTheme } from './theme/useTheme'

const ShortcutSheet = defineAsyncComponent(() => import('./shell/ShortcutSheet.vue'))
const finding = ref(false)
const keys = ref(false)

/** Goes over everything that stands on every page: to the grid where there is one, else to what the page is about. */
function skip() {
  const main = document.querySelector<HTMLElement>('main [role="grid"]') ?? document.querySelector<HTMLElement>('main')
  if (!main) return
  if (!main.hasAttribute('tabindex')) main.tabIndex = -1
  main.focus()
}
useTheme()
</script>

<template>
  <nav aria-label="Skip"><button type="button" class="skip" @click="skip">Skip to the content</button></nav>
  <RouterView />
  <section aria-label="Find, and keys">
    <CommandBox v-model="finding" @help="keys = true" />
    <ShortcutSheet v-model="keys" />
  </section>
</template>
