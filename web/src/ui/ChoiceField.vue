<script setup lang="ts" generic="T extends string | number">
import { ElOption, ElSelect } from 'element-plus'
import { computed, useId } from 'vue'

/** A choice among a few values, with its label. */
const props = defineProps<{
  label: string
  value: T | undefined
  choices: readonly (readonly [T, string])[]
  bare?: boolean // the label is only spoken
}>()
const emit = defineEmits<{ change: [value: T] }>()
const id = useId()
const chosen = computed(() => (props.choices.some(([v]) => v === props.value) ? props.value : undefined))
</script>

<template>
  <div :class="bare ? 'bare' : 'field'">
    <label :for="id" :class="{ 'visually-hidden': bare }">{{ label }}</label>
    <ElSelect
      :id="id"
      :model-value="chosen"
      size="small"
      placeholder=""
      :empty-values="[undefined]"
      :show-arrow="false"
      :offset="4"
      :fit-input-width="false"
      :data-choice="label"
      @change="(v: T) => emit('change', v)"
    >
      <ElOption v-for="[v, name] in choices" :key="v" :value="v" :label="name" />
    </ElSelect>
  </div>
</template>

<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(112px, 1fr) minmax(120px, var(--word));
  gap: 6px;
  align-items: center;
  min-height: var(--row);
}

.field :deep(.el-select__wrapper),
.bare :deep(.el-select__wrapper) {
  font-size: inherit;
}

.bare {
  width: var(--word);
}
</style>
