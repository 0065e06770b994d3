<script setup lang="ts" generic="T extends string">
import { ElTabPane, ElTabs } from 'element-plus'

/** Parts of which one is shown at a time, below. */
defineProps<{ tabs: readonly (readonly [T, string])[] }>()
const here = defineModel<T>({ required: true })
</script>

<template>
  <ElTabs v-model="here" class="tabs">
    <ElTabPane v-for="[id, name] in tabs" :key="id" :name="id">
      <template #label
        ><span :data-tab="id">{{ name }}</span></template
      >
    </ElTabPane>
  </ElTabs>
</template>

<style scoped>
.tabs {
  --el-tabs-header-height: 28px;
}

.tabs :deep(.el-tabs__header) {
  margin: 2px 0 8px;
}

.tabs :deep(.el-tabs__item) {
  padding: 0 8px;
  font-size: inherit;
  font-weight: 400;
  color: var(--soft);
}

.tabs :deep(.el-tabs__item.is-active) {
  font-weight: 600;
  color: var(--ink);
}

.tabs :deep(.el-tabs__active-bar) {
  transition: none;
}

.tabs :deep(.el-tabs__nav-wrap::after) {
  height: 1px;
}
</style>
