import type { Ref } from 'vue'

import type { SetCells, TableColumn } from '../../api/types'
import { notice } from '../../ui/notice'
import { readBlock, writeBlock } from './clipboard'
import { headings } from './headings'
import type { useGrid } from './useGrid'
import { useTable } from './useTable'

/** Texts of the cells that are selected: set, filled, copied and pasted as blocks. */
export function useBlocks(ids: Ref<string[]>, columns: Ref<TableColumn[]>, grid: ReturnType<typeof useGrid>) {
  const table = useTable()
  const idOf = (row: number) => ids.value[row] ?? ''
  const textAt = (row: number, column: number) => (idOf(row) ? table.text(idOf(row), columns.value[column]!.id) : '')
  const selectedIds = () => ids.value.slice(grid.range.value.top, grid.range.value.bottom + 1)
  const selectedColumns = () => columns.value.slice(grid.range.value.left, grid.range.value.right + 1)

  /** A row as it is set: that of a channel, or beyond the end one of a new channel. */
  const rowAt = (row: number, values: string[]): SetCells['rows'][number] =>
    idOf(row) ? { channel: idOf(row), values } : { values }

  /** Sets every selected cell to a text, or to the text of its column's first one. */
  function fill(text?: string) {
    const { top, left } = grid.range.value
    const held = selectedColumns()
    const values = held.map((_, i) => text ?? textAt(top, left + i))
    const rows = selectedIds().map((channel) => ({ channel, values }))
    if (rows.length) table.set({ columns: held.map((c) => c.id), rows })
  }

  /** Sets the one cell that the planner is in. */
  function setCell(text: string) {
    const { row, column } = grid.at.value
    if (idOf(row) ? text === textAt(row, column) : !text.trim()) return
    table.set({ columns: [columns.value[column]!.id], rows: [rowAt(row, [text])] })
  }

  /** The selected cells as spreadsheets take them. */
  function copy(event: ClipboardEvent) {
    const { left, top } = grid.range.value
    const block = selectedIds().map((_, i) => selectedColumns().map((_, j) => textAt(top + i, left + j)))
    event.clipboardData?.setData('text/plain', writeBlock(block))
    event.preventDefault()
  }

  /** Pastes a block at the cell; one cell goes into all that are selected. Rows beyond the end are new channels. */
  function paste(event: ClipboardEvent) {
    event.preventDefault()
    const block = readBlock(event.clipboardData?.getData('text/plain') ?? '')
    const titled = headings(columns.value, block[0]!)
    if (block.length === 1 && block[0]!.length === 1) {
      if (grid.size.value > 1) fill(block[0]![0])
      else setCell(block[0]![0]!)
    } else if (titled) pasteTitled(titled, block.slice(1))
    else pasteBlock(block)
  }

  function pasteTitled(titled: NonNullable<ReturnType<typeof headings>>, rows: string[][]) {
    const { top, left } = grid.range.value
    const valuesOf = (cells: string[]) => titled.map((h) => cells[h.at] ?? '')
    table.set({ columns: titled.map((h) => h.id), rows: rows.map((cells, i) => rowAt(top + i, valuesOf(cells))) })
    grid.go(top, left)
    notice(`The first row was read as headings: ${titled.map((h) => h.title).join(', ')}.`, { seconds: 6 })
  }

  function pasteBlock(block: string[][]) {
    const { top, left } = grid.range.value
    const wide = Math.min(Math.max(...block.map((r) => r.length)), columns.value.length - left)
    const into = columns.value.slice(left, left + wide).map((c) => c.id)
    const valuesOf = (cells: string[]) => into.map((_, j) => cells[j] ?? '')
    table.set({ columns: into, rows: block.map((cells, i) => rowAt(top + i, valuesOf(cells))) })
    grid.go(top, left)
    grid.go(top + block.length - 1, left + wide - 1, true)
  }

  return { idOf, textAt, selectedIds, fill, setCell, copy, paste }
}
