<script setup lang="ts" generic="T extends string">
import { ElSegmented } from 'element-plus'

/** One of a few ways that are all seen at once. */
defineProps<{ label: string; ways: readonly (readonly [T, string, string?])[] }>()
const way = defineModel<T>({ required: true })
</script>

<template>
  <ElSegmented
    v-model="way"
    size="small"
    :aria-label="label"
    :options="ways.map(([value, name, title]) => ({ value, label: name, title }))"
  >
    <template #default="{ item }"
      ><span :title="item.title" :data-way="item.value">{{ item.label }}</span></template
    >
  </ElSegmented>
</template>

<style scoped>
.el-segmented {
  --el-segmented-bg-color: transparent;
  --el-segmented-item-selected-bg-color: var(--selected);
  --el-segmented-item-selected-color: var(--ink);
  --el-segmented-item-hover-color: var(--ink);
  --el-segmented-color: var(--soft);
  padding: 0;
  border: 1px solid var(--rule);
  font-size: inherit;
}
</style>
