<script setup lang="ts">
import { computed, ref } from 'vue'

import { namesIn } from './useOpening'

/** Names of the cameras as they are pasted, one a line or a row of cells. */
defineProps<{ problem?: string }>()
const emit = defineEmits<{ change: [names: string[]] }>()
const text = ref('')
const names = computed(() => namesIn(text.value))
</script>

<template>
  <details class="names">
    <summary>Names of the cameras{{ names.length ? `: ${names.length}` : '' }}</summary>
    <textarea
      v-model="text"
      rows="5"
      aria-label="Names of the cameras, one a line"
      placeholder="Paste them here, one a line"
      data-test="names"
      @input="emit('change', names)"
    />
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  </details>
</template>

<style scoped>
.names textarea {
  width: 100%;
  margin-top: 4px;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 4px;
  color: inherit;
  font: inherit;
}
</style>
