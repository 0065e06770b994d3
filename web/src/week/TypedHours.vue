<script setup lang="ts">
import { ref } from 'vue'

import { api, inWords } from '../api/client'
import type { Problem, WrittenHours } from '../api/types'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import { useHand } from './useHand'

/** Paints hours that are typed, "Mon-Fri 07:45-16:10", to the minute: what is too small to be hit with a pointer. */
const props = defineProps<{ paint: (channels: string[], hours: WrittenHours) => Promise<void> }>()
const site = useSite()
const hand = useHand()
const text = ref('')
const problem = ref('')
const busy = ref(false)

async function keep() {
  if (!text.value.trim() || busy.value) return
  if (!hand.selection.length) {
    problem.value = 'Select the channels first.'
    return
  }
  busy.value = true
  try {
    const { data, error } = await api.POST('/api/hours', { body: { text: text.value } })
    problem.value = data ? '' : inWords(error as Problem)
    if (data) {
      await props.paint(hand.selection, data)
      text.value = ''
    }
  } catch {
    problem.value = 'No connection: nothing was painted.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="typed" data-test="typed-hours" @submit.prevent="keep">
    <label>or type hours <input v-model="text" placeholder="Mon-Fri 07:45-16:10" maxlength="500" autocomplete="off" :aria-invalid="!!problem" @input="problem = ''" /></label>
    <button type="submit" class="act quiet" :disabled="!text.trim() || busy" :title="`${site.duties.get(hand.duty)?.name}, on ${count(hand.selection.length, 'channel')}`">Paint</button>
    <span v-if="problem" class="short" role="alert">{{ problem }}</span>
  </form>
</template>

<style scoped>
.typed {
  display: flex;
  gap: 6px;
  align-items: center;
}

input {
  width: 150px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 0 6px;
}

input[aria-invalid='true'] {
  border-color: var(--short);
}
</style>
