import type { SetCells } from '../../api/types'
import { sentNumber } from '../../ui/number'
import type { Bad } from './hands'

/**
 * A block as the server reads it: the numbers in it as the program writes them. With it come the cells whose number can
 * mean two to whoever wrote it; their texts stay.
 */
export function sent(cells: SetCells, numeric: (column: string) => boolean): { cells: SetCells; bad: Bad[] } {
  const bad: Bad[] = []
  const rows = cells.rows.map((r, row) => ({
    ...r,
    values: r.values.map((value, column) => {
      if (!numeric(cells.columns[column]!)) return value
      const read = sentNumber(value)
      if ('text' in read) return read.text
      bad.push({ row, column, reason: read.why })
      return value
    }),
  }))
  return { cells: { ...cells, rows }, bad }
}
