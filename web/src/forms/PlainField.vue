<script setup lang="ts">
import { defineAsyncComponent, ref, useId } from 'vue'

/** It is large, and fetched where a password is made only. */
const PasswordMeter = defineAsyncComponent(() => import('./PasswordMeter.vue'))

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
const seen = ref(false) // whether a password is shown as it is typed
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <input
      :id="id"
      v-model="value"
      :type="seen ? 'text' : (type ?? 'text')"
      :autocomplete="autocomplete ?? 'off'"
      :autocapitalize="code ? 'none' : undefined"
      :spellcheck="code ? false : undefined"
      :maxlength="maxlength"
      :aria-invalid="!!problem"
      :aria-describedby="problem || hint ? `${id}-said` : undefined"
    />
    <button
      v-if="type === 'password'"
      type="button"
      class="plain-button soft see"
      :aria-pressed="seen"
      :aria-label="`Show: ${label}`"
      @click="seen = !seen"
    >
      {{ seen ? 'Hide' : 'Show' }}
    </button>
    <PasswordMeter v-if="autocomplete === 'new-password' && value" :password="value" class="meter" />
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
  grid-template-columns: 112px minmax(0, 1fr) auto;
  gap: 2px 8px;
  align-items: center;
  min-height: 28px;
}

input {
  width: 100%;
}

[aria-invalid='true'] {
  border-color: var(--short);
}

.see {
  font-size: var(--second);
}

.meter {
  grid-column: 2 / -1;
}

p {
  grid-column: 2;
  margin: 0;
  font-size: var(--second);
}

@media (max-width: 420px) {
  .field {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  label {
    grid-column: 1 / -1;
  }

  .see {
    min-width: 48px;
    min-height: 40px;
    text-align: center;
  }

  .meter {
    grid-column: 1 / -1;
  }

  input {
    height: 40px;
  }

  p {
    grid-column: 1;
  }
}
</style>
