<script setup lang="ts">
import { ref, useId } from 'vue'
import { vTyped } from './typed'

/** A text with its label, of one line or several, handed on when it is committed; one that is refused stays. */
defineProps<{
  label: string
  value: string | undefined
  choices?: readonly string[]
  problem?: string
  maxlength?: number
  placeholder?: string
  rows?: number // of a text of several lines
}>()
const emit = defineEmits<{ change: [value: string] }>()
const id = useId()
const typed = ref('') // what was handed on last
function commit(event: Event) {
  typed.value = (event.target as HTMLInputElement).value
  emit('change', typed.value.trim())
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <component
      :is="rows ? 'textarea' : 'input'"
      :id="id"
      v-typed="problem ? typed || value : value"
      :list="choices ? `${id}-list` : undefined"
      :maxlength="maxlength ?? 200"
      :placeholder="placeholder"
      :aria-invalid="!!problem"
      :aria-describedby="problem ? `${id}-problem` : undefined"
      :rows="rows"
      autocomplete="off"
      @change="commit"
    />
    <datalist v-if="choices" :id="`${id}-list`"><option v-for="c in choices" :key="c" :value="c" /></datalist>
    <p v-if="problem" :id="`${id}-problem`" class="short problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(112px, 1fr) minmax(120px, var(--word));
  gap: 2px 6px;
  align-items: center;
  min-height: var(--row);
}

input {
  width: 100%;
}

textarea {
  grid-column: 1 / -1;
}

.problem {
  grid-column: 1 / -1;
  margin: 0;
  font-size: var(--second);
}
</style>
