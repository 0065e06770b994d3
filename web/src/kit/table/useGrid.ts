import { computed, ref, type Ref } from 'vue'

export interface Place {
  row: number
  column: number
}

/** Where the planner is in a grid: one cell, and the rectangle from an anchor to it. */
export function useGrid(rows: Ref<number>, columns: Ref<number>) {
  const at = ref<Place>({ row: 0, column: 1 })
  const anchor = ref<Place>({ row: 0, column: 1 })

  const within = (n: number, size: number) => Math.max(0, Math.min(size - 1, n))

  function go(row: number, column: number, extend = false) {
    at.value = { row: within(row, rows.value), column: within(column, columns.value) }
    if (!extend) anchor.value = at.value
  }

  const step = (rowsOn: number, columnsOn: number, extend = false) =>
    go(at.value.row + rowsOn, at.value.column + columnsOn, extend)

  function all() {
    anchor.value = { row: 0, column: 0 }
    at.value = { row: within(rows.value - 1, rows.value), column: within(columns.value - 1, columns.value) }
  }

  /** Whole rows. */
  function row(from: number, to: number) {
    anchor.value = { row: within(from, rows.value), column: 0 }
    at.value = { row: within(to, rows.value), column: within(columns.value - 1, columns.value) }
  }

  /** A whole column, but for the row of new channels. */
  function column(j: number) {
    anchor.value = { row: 0, column: within(j, columns.value) }
    at.value = { row: within(rows.value - 2, rows.value), column: within(j, columns.value) }
  }

  const range = computed(() => ({
    top: Math.min(at.value.row, anchor.value.row),
    bottom: Math.max(at.value.row, anchor.value.row),
    left: Math.min(at.value.column, anchor.value.column),
    right: Math.max(at.value.column, anchor.value.column),
  }))
  const size = computed(() => (range.value.bottom - range.value.top + 1) * (range.value.right - range.value.left + 1))
  return { at, anchor, range, size, go, step, all, row, column }
}
