<script setup lang="ts" generic="T extends string | number">
import { useId } from 'vue'

/** A choice among a few values, with its label. */
defineProps<{ label: string; value: T | undefined; choices: readonly (readonly [T, string])[] }>()
const emit = defineEmits<{ change: [value: T] }>()
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <select :id="id" :value="value" @change="emit('change', choices[($event.target as HTMLSelectElement).selectedIndex]![0])">
      <option v-for="[v, name] in choices" :key="v" :value="v">{{ name }}</option>
    </select>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 116px;
  gap: 6px;
  align-items: center;
  min-height: 27px;
}

select {
  font: inherit;
  color: inherit;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 2px 4px;
}
</style>
