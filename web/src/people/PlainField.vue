<script setup lang="ts">
import { useId } from 'vue'

/** A field of a form that is sent as a whole, with what browsers and password stores know it by. */
defineProps<{
  label: string
  type?: 'text' | 'password' | 'search' | 'number' | 'date'
  autocomplete?: string
  hint?: string
  problem?: string
  maxlength?: number
  code?: boolean // whether it takes a code: no capitals, nothing corrected
}>()
const value = defineModel<string>({ required: true })
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="value"
      :type="type ?? 'text'"
      :autocomplete="autocomplete ?? 'off'"
      :autocapitalize="code ? 'none' : undefined"
      :spellcheck="code ? false : undefined"
      :maxlength="maxlength"
      :aria-invalid="!!problem"
      :aria-describedby="problem || hint ? `${id}-said` : undefined"
    />
    <p
      v-if="problem || hint"
      :id="`${id}-said`"
      :class="problem ? 'short' : 'soft'"
      :role="problem ? 'alert' : undefined"
    >
      {{ problem || hint }}
    </p>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 2px 8px;
  align-items: center;
  min-height: 28px;
}

input {
  min-width: 0;
  height: 26px;
  background: var(--sheet);
  border: 1px solid var(--soft);
  border-radius: 4px;
  padding: 2px 7px;
}

[aria-invalid='true'] {
  border-color: var(--short);
}

p {
  grid-column: 2;
  margin: 0;
  font-size: 12px;
}

@media (max-width: 420px) {
  .field {
    grid-template-columns: minmax(0, 1fr);
  }

  input {
    height: 40px;
  }

  p {
    grid-column: 1;
  }
}
</style>
