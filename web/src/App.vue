<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'

import CommandBox from './shell/CommandBox.vue'
import { useTheme } from './theme/useTheme'

const ShortcutSheet = defineAsyncComponent(() => import('./shell/ShortcutSheet.vue'))
const finding = ref(false)
const keys = ref(false)
useTheme()
</script>

<template>
  <RouterView />
  <section aria-label="Find, and keys">
    <CommandBox v-model="finding" @help="keys = true" />
    <ShortcutSheet v-model="keys" />
  </section>
</template>
