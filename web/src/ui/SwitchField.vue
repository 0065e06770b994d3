<script setup lang="ts">
import { ElSwitch } from 'element-plus'
import { useId } from 'vue'

/** Yes or no, with its label. */
defineProps<{ label: string; value: boolean | undefined }>()
const emit = defineEmits<{ change: [on: boolean] }>()
const id = useId()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElSwitch
      :id="id"
      :model-value="!!value"
      :aria-label="label"
      :data-switch="label"
      @change="(on) => emit('change', !!on)"
    />
  </div>
</template>

<style scoped>
.field {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: var(--row);
}
</style>
