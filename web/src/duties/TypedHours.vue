<script setup lang="ts">
import { ref } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import type { WrittenHours } from '../api/types'

/** Hours that are typed, "Mon-Fri 07:45-16:10", to the minute: what is too small to be hit with a pointer. */
const props = defineProps<{
  label: string
  act: string // what is done with them
  title?: string
  refuse?: string // why nothing can be done with hours now; empty where it can
  keep: (hours: WrittenHours) => void | Promise<void>
}>()
const text = ref('')
const problem = ref('')
const busy = ref(false)

async function hand() {
  if (!text.value.trim() || busy.value) return
  problem.value = props.refuse ?? ''
  if (problem.value) return
  busy.value = true
  const told = await ask(api.POST('/api/hours', { body: { text: text.value } }))
  problem.value = told.status ? told.problem : `${told.problem} Nothing was changed.`.trim()
  if (told.data) {
    problem.value = ''
    await props.keep(told.data)
    text.value = ''
  }
  busy.value = false
}
</script>

<template>
  <form class="typed" data-test="typed-hours" @submit.prevent="hand">
    <slot />
    <label
      >{{ label }}
      <input
        v-model="text"
        placeholder="Mon-Fri 07:45-16:10"
        maxlength="500"
        autocomplete="off"
        :aria-invalid="!!problem"
        @input="problem = ''"
    /></label>
    <button type="submit" class="act quiet" :disabled="!text.trim() || busy" :title="title">{{ act }}</button>
    <span v-if="problem" class="short" role="alert">{{ problem }}</span>
  </form>
</template>

<style scoped>
.typed {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
