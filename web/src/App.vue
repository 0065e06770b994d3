<script setup lang="ts">
import { useTheme } from './theme/useTheme'

useTheme()
</script>

<template>
  <RouterView />
</template>
