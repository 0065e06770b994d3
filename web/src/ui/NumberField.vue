<script setup lang="ts">
import { ElInputNumber } from 'element-plus'
import { useId } from 'vue'

/** A number with its label and unit. It is handed on when it is committed, not while it is typed. */
defineProps<{ label: string; unit?: string; value: number | undefined; min?: number; max?: number; step?: number; disabled?: boolean; mixed?: boolean }>()
const emit = defineEmits<{ change: [value: number] }>()
const id = useId()

function commit(value: number | undefined) {
  if (value != null) emit('change', value)
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <ElInputNumber
      :id="id" :model-value="mixed ? undefined : value" :min="min ?? 0" :max="max" :step="step ?? 1" :controls="false" size="small" :disabled="disabled"
      :placeholder="mixed ? 'differ' : ''" @change="commit"
    />
    <span class="soft">{{ unit }}</span>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 68px 36px;
  gap: 6px;
  align-items: center;
  min-height: 27px;
}

.field :deep(.el-input-number) {
  width: 100%;
}

.field :deep(.el-input__inner) {
  text-align: right;
}
</style>
