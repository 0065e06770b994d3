<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { limitsOf } from '../api/format'
import { asRead } from '../habits/now'
import { durationInWords, readDuration } from './duration'
import TextField from './TextField.vue'

/** A length of time as people type it. What cannot be read stays, with the reason. */
const props = defineProps<{ label: string; value: number | undefined; member: string; none?: string }>()
const emit = defineEmits<{ change: [seconds: number]; clear: [] }>()
const text = ref('')
const problem = ref('')
const shown = computed(() => (props.value ? asRead(durationInWords(props.value)) : ''))
watch(
  shown,
  () => {
    text.value = shown.value
    problem.value = ''
  },
  { immediate: true },
)

function read(typed: string) {
  text.value = typed
  if (!typed.trim() && props.none) return emit('clear')
  const limits = limitsOf(props.member)
  const got = readDuration(typed, limits.minimum ?? 0, limits.maximum ?? Infinity, shown.value)
  problem.value = 'why' in got ? `${got.why}; unchanged: ${shown.value || props.none || 'empty'}` : ''
  if ('why' in got) return
  text.value = asRead(durationInWords(got.value))
  if (got.value !== props.value) emit('change', got.value)
}
</script>

<template>
  <TextField :label="label" :value="text" :problem="problem" :maxlength="30" :placeholder="none" @change="read" />
</template>
