<script setup lang="ts">
import { ref, watch } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Hours } from '../api/types'
import { asRead } from '../habits/now'
import TextField from './TextField.vue'

/** Hours of the week as a person types them: "Mon-Fri 07:45-16:10". What cannot be read stays, with the reason. */
const props = defineProps<{ label: string; value: Hours[] | undefined; empty?: string }>()
const emit = defineEmits<{ change: [value: Hours[]] }>()

const text = ref('')
const problem = ref('')

const { data: written } = useAnswer(
  () => JSON.stringify(props.value ?? []),
  () => (props.value?.length ? api.POST('/api/hours', { body: { blocks: props.value } }) : undefined),
)
watch(written, () => {
  text.value = asRead(written.value?.text ?? '')
  problem.value = ''
})

async function read(typed: string) {
  text.value = typed
  const told = await ask(api.POST('/api/hours', { body: { text: typed } }))
  problem.value = told.problem
  if (!told.data) return
  text.value = asRead(told.data.text)
  if (JSON.stringify(told.data.blocks) !== JSON.stringify(props.value)) emit('change', told.data.blocks)
}
</script>

<template>
  <TextField
    :label="label"
    :value="text"
    :problem="problem"
    :maxlength="500"
    :placeholder="empty ?? 'Mon-Fri 20:00-06:00'"
    @change="read"
  />
</template>
