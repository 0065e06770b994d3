<script setup lang="ts">
import { useId } from 'vue'

import { vTyped } from './typed'

/** A text of several lines with its label, handed on when it is left. */
defineProps<{ label: string; value: string | undefined; rows?: number; maxlength: number; placeholder?: string }>()
const emit = defineEmits<{ change: [value: string] }>()
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <textarea
      :id="id"
      v-typed="value"
      :rows="rows ?? 3"
      :maxlength="maxlength"
      :placeholder="placeholder"
      @change="emit('change', ($event.target as HTMLTextAreaElement).value.trim())"
    />
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(130px, 1.2fr);
  gap: 2px 6px;
  padding: 2px 0;
}

textarea {
  min-width: 0;
  padding: 2px 6px;
  font: inherit;
  color: inherit;
  resize: vertical;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
}
</style>
