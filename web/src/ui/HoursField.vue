<script setup lang="ts">
import { ref, watch } from 'vue'

import { api, inWords } from '../api/client'
import type { Hours, Problem } from '../api/types'
import TextField from './TextField.vue'

/** Hours of the week as a person types them: "Mon-Fri 07:45-16:10". What cannot be read stays, with the reason. */
const props = defineProps<{ label: string; value: Hours[] | undefined }>()
const emit = defineEmits<{ change: [value: Hours[]] }>()

const text = ref('')
const problem = ref('')

watch(
  () => JSON.stringify(props.value ?? []),
  async (blocks) => {
    problem.value = ''
    if (!props.value?.length) {
      text.value = ''
      return
    }
    const { data } = await api.POST('/api/hours', { body: { blocks: props.value } }).catch(() => ({ data: undefined }))
    if (data && blocks === JSON.stringify(props.value ?? [])) text.value = data.text
  },
  { immediate: true },
)

async function read(typed: string) {
  text.value = typed
  try {
    const { data, error } = await api.POST('/api/hours', { body: { text: typed } })
    problem.value = data ? '' : inWords(error as Problem)
    if (!data) return
    text.value = data.text
    if (JSON.stringify(data.blocks) !== JSON.stringify(props.value)) emit('change', data.blocks)
  } catch {
    problem.value = 'The server does not answer.'
  }
}
</script>

<template>
  <TextField :label="label" :value="text" :problem="problem" :maxlength="500" placeholder="Mon-Fri 20:00-06:00" @change="read" />
</template>
