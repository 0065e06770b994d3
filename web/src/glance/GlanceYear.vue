<script setup lang="ts">
import { useYear } from '../disk/useYear'
import YearLine from '../disk/YearLine.vue'

/** The days kept at every date of this year. */
defineProps<{ height: number }>()
const { data: found, failure } = useYear()
</script>

<template>
  <YearLine brief :found="found" :failure="failure" :height="height" />
</template>
