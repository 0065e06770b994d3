<script setup lang="ts">
import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { Activity } from '../../api/types'
import { three } from '../../ui/figures'

/** How far what is known of an activity may be off. */
const props = defineProps<{ activity: Activity }>()
const { data: rates } = useAnswer(
  () => props.activity,
  () => api.POST('/api/activities/rates', { body: props.activity }),
  { keep: true },
)
const words = { guess: 'A guess', surveyed: 'Surveyed', measured: 'Measured' }
</script>

<template>
  <span v-if="rates" data-test="doubt"
    >{{ words[activity.known] }}: how often it happens may be off by a factor of {{ three(rates.offBy) }}.</span
  >
</template>
