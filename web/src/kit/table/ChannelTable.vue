<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import type { TableColumn } from '../../api/types'
import { useSite } from '../../site/useSite'
import { notice } from '../../ui/notice'
import { readBlock, writeBlock } from './clipboard'
import TableRow from './TableRow.vue'
import { useGrid } from './useGrid'
import { useRowDrag } from './useRowDrag'
import { useTable } from './useTable'

/** Channels as a spreadsheet: the rows given, and one more in which a new channel is typed. */
const props = defineProps<{ ids: string[]; columns: TableColumn[] }>()
const emit = defineEmits<{ select: [ids: string[]] }>()
const ROW = 25
const HEAD = 44

const site = useSite()
const table = useTable()
const scroller = useTemplateRef('scroller')
const editing = ref<{ text: string; all: boolean }>()

const grid = useGrid(computed(() => props.ids.length + 1), computed(() => props.columns.length))
const drag = useRowDrag(computed(() => props.ids), () => selectedIds())
const virtual = useVirtualizer(
  computed(() => ({
    count: props.ids.length + 1, getScrollElement: () => scroller.value, estimateSize: () => ROW, overscan: 8, paddingStart: HEAD, scrollPaddingStart: HEAD,
  })),
)

const widths: Record<string, number> = { number: 44, name: 168, group: 104, recorder: 150, pool: 90, camera: 62, kind: 128, activity: 150, nuisance: 120, week: 170 }
const width = (c: TableColumn) => widths[c.id] ?? (c.id.endsWith('.rate') ? 136 : c.id.endsWith('.size') ? 92 : c.id.endsWith('.known') ? 84 : /gop|keyframe/.test(c.id) ? 108 : 78)
const lefts = computed(() => {
  let x = 26
  return props.columns.map((c) => ((x += width(c)), x - width(c)))
})
const total = computed(() => (lefts.value.at(-1) ?? 0) + width(props.columns.at(-1)!))

/** Number and name stay in view. */
const places = computed(() => props.columns.map((c, j) => ({ width: `${width(c)}px`, ...(j < 2 && { left: `${lefts.value[j]}px` }) })))

/** Columns of one group, side by side, under their name. */
const groups = computed(() => {
  const out: { name: string; left: number; width: number }[] = []
  props.columns.forEach((c, i) => {
    const last = out.at(-1)
    if (last?.name === c.group) last.width += width(c)
    else out.push({ name: c.group, left: lefts.value[i]!, width: width(c) })
  })
  return out
})

const idOf = (row: number) => props.ids[row] ?? ''
const textAt = (row: number, column: number) => (idOf(row) ? table.text(idOf(row), props.columns[column]!.id) : '')
const holds = (row: number) => row >= grid.range.value.top && row <= grid.range.value.bottom

function selectedIds(): string[] {
  const { top, bottom } = grid.range.value
  return props.ids.slice(top, bottom + 1)
}

watch([grid.range, () => props.ids], () => emit('select', selectedIds()), { immediate: true })
watch(grid.at, ({ row, column }) => {
  virtual.value.scrollToIndex(row)
  const box = scroller.value
  if (!box || column < 2) return
  const [left, right] = [lefts.value[column]!, lefts.value[column]! + width(props.columns[column]!)]
  const frozen = lefts.value[2] ?? 0
  if (left - frozen < box.scrollLeft) box.scrollLeft = left - frozen
  else if (right > box.scrollLeft + box.clientWidth) box.scrollLeft = right - box.clientWidth
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
  const { row, column } = grid.at.value
  leave()
  if (everywhere) fill(text)
  else if (!idOf(row) && text.trim()) table.set({ columns: [props.columns[column]!.id], rows: [{ values: [text] }] })
  else if (idOf(row) && text !== textAt(row, column)) table.set({ columns: [props.columns[column]!.id], rows: [{ channel: idOf(row), values: [text] }] })
  if (!everywhere) grid.step(...move)
}

/** Sets every selected cell to a text, or to the text of its column's first one. */
function fill(text?: string) {
  const { top, left, right } = grid.range.value
  const columns = props.columns.slice(left, right + 1)
  const values = columns.map((_, i) => text ?? textAt(top, left + i))
  const ids = selectedIds()
  if (ids.length) table.set({ columns: columns.map((c) => c.id), rows: ids.map((channel) => ({ channel, values })) })
}

function copy(event: ClipboardEvent) {
  if (editing.value) return
  const { left, right, top } = grid.range.value
  const block = selectedIds().map((_, i) => props.columns.slice(left, right + 1).map((_, j) => textAt(top + i, left + j)))
  event.clipboardData?.setData('text/plain', writeBlock(block))
  event.preventDefault()
}

/** The columns that a pasted row names, where it is a row of headings: at least two, and nothing else in it. */
function headings(cells: string[]) {
  const plain = (text: string) => text.trim().toLowerCase()
  const named = cells.map((text, at) => {
    const c = props.columns.find((column) => [column.title, column.id, `${column.title} ${column.unit}`].some((name) => plain(name) === plain(text)))
    return c && { at, id: c.id, title: c.title }
  })
  const found = named.filter((n) => n !== undefined)
  return found.length >= 2 && named.every((n, i) => n || !cells[i]!.trim()) ? found : undefined
}

/** Pastes a block at the cell; one cell goes into all that are selected. Rows beyond the end are new channels. */
function paste(event: ClipboardEvent) {
  if (editing.value) return
  event.preventDefault()
  const block = readBlock(event.clipboardData?.getData('text/plain') ?? '')
  if (block.length === 1 && block[0]!.length === 1) {
    if (grid.size.value > 1) fill(block[0]![0])
    else commit(block[0]![0]!, [0, 0], false)
    return
  }
  const { top, left } = grid.range.value
  const titled = headings(block[0]!)
  if (titled) {
    const rows = block.slice(1)
    table.set({
      columns: titled.map((h) => h.id),
      rows: rows.map((cells, i) => ({ ...(idOf(top + i) && { channel: idOf(top + i) }), values: titled.map((h) => cells[h.at] ?? '') })),
    })
    grid.go(top, left)
    notice(`The first row was taken for headings: ${titled.map((h) => h.title).join(', ')}.`, { seconds: 6 })
    return
  }
  const wide = Math.min(Math.max(...block.map((r) => r.length)), props.columns.length - left)
  const columns = props.columns.slice(left, left + wide).map((c) => c.id)
  table.set({
    columns,
    rows: block.map((cells, i) => ({ ...(idOf(top + i) && { channel: idOf(top + i) }), values: columns.map((_, j) => cells[j] ?? '') })),
  })
  grid.go(top, left)
  grid.go(top + block.length - 1, left + wide - 1, true)
}

const moves: Record<string, [number, number]> = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], PageUp: [-20, 0], PageDown: [20, 0] }

function key(event: KeyboardEvent) {
  if (editing.value) return
  const ctrl = event.ctrlKey || event.metaKey
  const { row, column } = grid.at.value
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) drag.step(event.key === 'ArrowUp' ? -1 : 1)
  else if (moves[event.key] && !event.altKey) grid.step(...(ctrl ? (moves[event.key]!.map((n) => n * 5000) as [number, number]) : moves[event.key]!), event.shiftKey)
  else if (event.key === 'Tab') {
    if (event.shiftKey ? column === 0 : column === props.columns.length - 1) return // out of the table
    grid.step(0, event.shiftKey ? -1 : 1)
  } else if (event.key === 'Home') grid.go(ctrl ? 0 : row, 0, event.shiftKey)
  else if (event.key === 'End') grid.go(ctrl ? props.ids.length - 1 : row, props.columns.length - 1, event.shiftKey)
  else if (event.key === 'Enter' || event.key === 'F2') edit()
  else if (event.key === 'Delete' || event.key === 'Backspace') fill('')
  else if (event.key === 'Escape' && table.refused.size) table.forget()
  else if (ctrl && event.key.toLowerCase() === 'a') grid.all()
  else if (ctrl && event.key.toLowerCase() === 'd') fill()
  else if (event.key.length === 1 && !ctrl && !event.altKey) {
    edit('') // the field is there before the character, which so lands in it, also from an input method
    return
  } else return
  event.preventDefault()
}

let sweeping = false
function down(event: PointerEvent, row: number, column: number) {
  if (event.button !== 0 || (editing.value && (event.target as HTMLElement).closest('input'))) return
  grid.go(row, column, event.shiftKey)
  sweeping = true
  addEventListener('pointerup', () => (sweeping = false), { once: true })
}
const over = (row: number, column: number) => sweeping && grid.go(row, column, true)

defineExpose({ fill, focus: () => scroller.value?.focus(), size: grid.size, newRow: () => (grid.go(props.ids.length, 1), scroller.value?.focus()) })
</script>

<template>
  <div
    ref="scroller" class="scroller" role="grid" tabindex="0" aria-label="Channels" aria-multiselectable="true" :aria-rowcount="ids.length + 2" :aria-colcount="columns.length"
    :aria-activedescendant="`cell-${grid.at.value.row}-${grid.at.value.column}`" data-test="channel-table" @keydown="key" @copy="copy" @paste="paste" @dblclick="editing || edit()"
  >
    <div class="all" role="presentation" :style="{ width: `${total}px`, height: `${virtual.getTotalSize()}px` }">
      <div class="head" role="row" aria-rowindex="1" :style="{ width: `${total}px` }">
        <span v-for="g in groups" :key="g.name + g.left" class="group soft" aria-hidden="true" :style="{ left: `${g.left}px`, width: `${g.width}px` }">{{ g.name }}</span>
        <span
          v-for="(c, j) in columns" :key="c.id" class="title" role="columnheader" :aria-colindex="j + 1" :class="{ numeric: c.numeric, frozen: j < 2 }"
          :style="places[j]" :title="`${c.unit ? `${c.title}, ${c.unit}` : c.title}: click to select the column`" :data-heading="c.id"
          @click="(grid.column(j), scroller?.focus({ preventScroll: true }))"
        >{{ c.title }} <span v-if="c.unit" class="soft">{{ c.unit }}</span></span>
      </div>
      <div
        v-for="item in virtual.getVirtualItems()" :key="idOf(item.index)" class="row" role="row" :aria-rowindex="item.index + 2" :data-row="idOf(item.index) || 'new'"
        :class="{ empty: site.channels.get(idOf(item.index))?.noCamera, target: drag.before.value === (idOf(item.index) || '*') }" :style="{ transform: `translateY(${item.start}px)`, width: `${total}px` }"
      >
        <TableRow
          :id="idOf(item.index)" :row="item.index" :columns="columns" :places="places" :at="grid.at.value.row === item.index ? grid.at.value.column : -1"
          :left="holds(item.index) ? grid.range.value.left : -1" :right="holds(item.index) ? grid.range.value.right : -1" :many="grid.size.value > 1"
          :editing="grid.at.value.row === item.index ? editing : undefined"
          @commit="commit" @leave="leave" @grip="(e) => drag.down(e, item.index, grid)" @down="(e, j) => down(e, item.index, j)" @over="(j) => over(item.index, j)"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.scroller {
  position: relative;
  overflow: auto;
  height: 100%;
  background: var(--sheet);
  user-select: none;
}

.scroller:focus-visible {
  outline-offset: -2px;
}

.all {
  position: relative;
}

.head {
  position: sticky;
  top: 0;
  z-index: 3;
  height: 44px;
  background: var(--band);
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
}

.head {
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

.row {
  position: absolute;
  top: 0;
  height: 25px;
  display: flex;
}

.row:nth-child(even) :deep(.cell) {
  background: color-mix(in srgb, var(--band) 30%, var(--sheet));
}

.row :deep(.grip),
.row :deep(.cell) {
  position: relative;
  flex: none;
  height: 25px;
  line-height: 24px;
  border-bottom: 1px solid var(--rule);
  border-right: 1px solid color-mix(in srgb, var(--rule) 60%, transparent);
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
  padding: 0 6px;
  background: var(--sheet);
}

.row :deep(.grip) {
  position: sticky;
  z-index: 2;
  left: 0;
  width: 26px;
  padding: 0;
  text-align: center;
  color: var(--soft);
}

.row :deep(.grip.movable) {
  cursor: grab;
}

.row :deep(.cell.frozen) {
  position: sticky;
  z-index: 1;
}

.row :deep(.cell.frozen.at) {
  z-index: 2;
}

.numeric,
.row :deep(.numeric) {
  text-align: right;
}

.row.empty :deep(.cell) {
  color: var(--soft);
  font-style: italic;
}

.row :deep(.cell.held) {
  background: var(--selected) !important;
}

.row :deep(.cell.at) {
  outline: 2px solid var(--base);
  outline-offset: -2px;
  overflow: visible;
  z-index: 1;
}

.row :deep(.cell.departs) {
  text-decoration: underline dotted var(--alarm) 1.5px;
  text-underline-offset: 3px;
}

.row :deep(.cell.bad) {
  color: var(--short);
  box-shadow: inset 0 -2px 0 var(--short);
}

.row[data-row='new'] :deep(.cell) {
  color: var(--soft);
}

.row.target {
  box-shadow: 0 -2px 0 var(--base);
  z-index: 2;
}
</style>
