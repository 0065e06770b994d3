<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import type { TableColumn } from '../../api/types'
import TableHead from './TableHead.vue'
import TableRow from './TableRow.vue'
import { useBlocks } from './useBlocks'
import { useColumns } from './useColumns'
import { useGrid } from './useGrid'
import { useRowDrag } from './useRowDrag'
import { useTableKeys } from './useTableKeys'

/** Channels as a spreadsheet: the rows given, and one more in which a new channel is typed. */
const props = defineProps<{ ids: string[]; columns: TableColumn[] }>()
const emit = defineEmits<{ select: [ids: string[]] }>()
const ROW = 25
const HEAD = 44

const scroller = useTemplateRef('scroller')
const editing = ref<{ text: string; all: boolean }>()
const ids = computed(() => props.ids)
const columns = computed(() => props.columns)

const grid = useGrid(
  computed(() => props.ids.length + 1),
  computed(() => props.columns.length),
)
const where = useColumns(
  columns,
  scroller,
  computed(() => grid.at.value.column),
)
const { idOf, textAt, selectedIds, fill, setCell, copy, paste } = useBlocks(ids, columns, grid)
const drag = useRowDrag(ids, selectedIds)
const key = useTableKeys(ids, columns, grid, { edit, fill, renumber: drag.step })
const virtual = useVirtualizer(
  computed(() => ({
    count: props.ids.length + 1,
    getScrollElement: () => scroller.value,
    estimateSize: () => ROW,
    overscan: 8,
    paddingStart: HEAD,
    scrollPaddingStart: HEAD,
  })),
)

const holds = (row: number) => row >= grid.range.value.top && row <= grid.range.value.bottom

/** Where rows come in another order, the selection stays with those that it was on. */
watch(ids, (now, before) => {
  if (!before.length) return // they have only just come
  const moved = (row: number) => {
    const id = before[row]
    const at = id === undefined ? now.length : now.indexOf(id)
    return at < 0 ? row : at
  }
  const { at, anchor } = grid
  const [to, from] = [moved(at.value.row), moved(anchor.value.row)]
  if (to === at.value.row && from === anchor.value.row) return
  const column = at.value.column
  grid.go(from, anchor.value.column)
  grid.go(to, column, true)
})
watch([grid.range, ids], () => emit('select', selectedIds()), { immediate: true })
watch(grid.at, ({ row, column }) => {
  virtual.value.scrollToIndex(row)
  where.reveal(column)
})

function edit(text?: string) {
  editing.value = { text: text ?? textAt(grid.at.value.row, grid.at.value.column), all: text !== undefined }
}

function leave() {
  editing.value = undefined
  void nextTick(() => scroller.value?.focus({ preventScroll: true }))
}

/** Keeps what was typed, in the cell or in all that are selected. */
function commit(text: string, move: [number, number], everywhere: boolean) {
  leave()
  if (everywhere) fill(text)
  else {
    setCell(text)
    grid.step(...move)
  }
}

let sweeping = false
function down(event: PointerEvent, row: number, column: number) {
  if (event.button !== 0 || (editing.value && (event.target as HTMLElement).closest('input'))) return
  grid.go(row, column, event.shiftKey)
  sweeping = true
  addEventListener('pointerup', () => (sweeping = false), { once: true })
}
const over = (row: number, column: number) => sweeping && grid.go(row, column, true)

defineExpose({
  fill,
  focus: () => scroller.value?.focus(),
  size: grid.size,
  newRow: () => (grid.go(props.ids.length, 1), scroller.value?.focus()),
})
</script>

<template>
  <div
    ref="scroller"
    class="scroller"
    role="grid"
    tabindex="0"
    aria-label="Channels"
    aria-multiselectable="true"
    :aria-rowcount="ids.length + 2"
    :aria-colcount="columns.length"
    :aria-activedescendant="`cell-${grid.at.value.row}-${grid.at.value.column}`"
    data-test="channel-table"
    @keydown="editing || key($event)"
    @copy="editing || copy($event)"
    @paste="editing || paste($event)"
    @dblclick="editing || edit()"
  >
    <div
      class="all"
      role="presentation"
      :style="{ width: `${where.total.value}px`, height: `${virtual.getTotalSize()}px` }"
    >
      <TableHead
        :columns="columns"
        :where="where"
        @pick="(j) => (grid.column(j), scroller?.focus({ preventScroll: true }))"
      />
      <TableRow
        v-for="item in virtual.getVirtualItems()"
        :id="idOf(item.index)"
        :key="idOf(item.index)"
        :style="`transform: translateY(${item.start}px); width: ${where.total.value}px`"
        :target="drag.before.value === (idOf(item.index) || '*')"
        :row="item.index"
        :columns="columns"
        :shown="where.shown.value"
        :places="where.places.value"
        :at="grid.at.value.row === item.index ? grid.at.value.column : -1"
        :left="holds(item.index) ? grid.range.value.left : -1"
        :right="holds(item.index) ? grid.range.value.right : -1"
        :many="grid.size.value > 1"
        :editing="grid.at.value.row === item.index ? editing : undefined"
        @commit="commit"
        @leave="leave"
        @grip="(e) => drag.down(e, item.index, grid)"
        @down="(e, j) => down(e, item.index, j)"
        @over="(j) => over(item.index, j)"
      />
    </div>
  </div>
</template>

<style scoped>
.scroller {
  position: relative;
  overflow: auto;
  min-height: 0;
  background: var(--sheet);
  user-select: none;
}

.scroller:focus-visible {
  outline-offset: -2px;
}

.all {
  position: relative;
}
</style>
