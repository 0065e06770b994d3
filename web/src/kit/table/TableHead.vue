<script setup lang="ts">
import type { TableColumn } from '../../api/types'
import { FROZEN, type useColumns } from './useColumns'

/** The headings of the table, by groups; a click selects the column. */
defineProps<{ columns: TableColumn[]; where: ReturnType<typeof useColumns> }>()
const emit = defineEmits<{ pick: [column: number] }>()
</script>

<template>
  <div class="head" role="row" aria-rowindex="1" :style="{ width: `${where.total.value}px` }">
    <span
      v-for="g in where.groups.value"
      :key="g.name + g.left"
      class="group soft"
      aria-hidden="true"
      :style="{ left: `${g.left}px`, width: `${g.width}px` }"
      >{{ g.name }}</span
    >
    <span
      v-for="(c, j) in columns"
      :key="c.id"
      class="title"
      role="columnheader"
      :aria-colindex="j + 1"
      :class="{ numeric: c.numeric, frozen: j < FROZEN }"
      :style="{ width: where.places.value[j]?.width, left: j < FROZEN ? where.places.value[j]?.left : undefined }"
      :title="`${c.unit ? `${c.title}, ${c.unit}` : c.title}: click to select the column`"
      :data-heading="c.id"
      @click="emit('pick', j)"
      >{{ c.title }} <span v-if="c.unit" class="soft">{{ c.unit }}</span></span
    >
  </div>
</template>

<style scoped>
.head {
  position: sticky;
  top: 0;
  z-index: 3;
  height: 44px;
  background: var(--band);
  border-bottom: 1px solid var(--rule);
  font-size: var(--second);
  display: flex;
  padding-top: 22px;
}

/* Keeps what scrolls from showing above the grips. */
.head::before {
  content: '';
  position: sticky;
  left: 0;
  z-index: 1;
  flex: none;
  width: 26px;
  margin-top: -22px;
  background: var(--band);
}

.head > * {
  flex: none;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  padding: 0 6px;
}

.group {
  position: absolute;
  top: 3px;
  border-left: 1px solid var(--rule);
}

.title {
  font-weight: 600;
}

.title.frozen {
  position: sticky;
  z-index: 1;
  background: var(--band);
}

.title .soft {
  font-weight: 400;
}

.numeric {
  text-align: right;
}
</style>
