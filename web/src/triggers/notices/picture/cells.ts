import type { Area } from '../../../api/types'

export type Cells = NonNullable<Area['cells']>

/** The bits of painted cells: the first cell is the highest bit of the first byte. */
const bytesOf = (cells: Cells) => Uint8Array.from(atob(cells.on), (c) => c.charCodeAt(0))
const isOn = (bytes: Uint8Array, i: number) => ((bytes[i >> 3]! >> (7 - (i & 7))) & 1) === 1

export function isPainted(cells: Cells, column: number, row: number): boolean {
  return isOn(bytesOf(cells), row * cells.columns + column)
}

/** A grid of which nothing is painted. */
export function blank(columns: number, rows: number): Cells {
  return { columns, rows, on: btoa('\0'.repeat(Math.ceil((columns * rows) / 8))) }
}

/** Cells with a stroke of a square brush, so many cells wide, painted or taken away. */
export function painted(cells: Cells, way: { column: number; row: number }[], size: number, on: boolean): Cells {
  const bytes = bytesOf(cells)
  const before = (size - 1) >> 1
  for (const { column, row } of way)
    for (let y = Math.max(0, row - before); y < Math.min(cells.rows, row - before + size); y++)
      for (let x = Math.max(0, column - before); x < Math.min(cells.columns, column - before + size); x++) {
        const i = y * cells.columns + x
        const bit = 0x80 >> (i & 7)
        if (on) bytes[i >> 3]! |= bit
        else bytes[i >> 3]! &= ~bit
      }
  return { ...cells, on: btoa(String.fromCharCode(...bytes)) }
}

/** Painted cells as the path of a drawing, run by run. */
export function cellsPath(cells: Cells, width: number, height: number): string {
  const bytes = bytesOf(cells)
  const [w, h] = [width / cells.columns, height / cells.rows]
  let path = ''
  for (let row = 0; row < cells.rows; row++)
    for (let column = 0; column < cells.columns; column++) {
      const from = column
      while (column < cells.columns && isOn(bytes, row * cells.columns + column)) column++
      if (column > from) path += `M${from * w} ${row * h}h${(column - from) * w}v${h}h${(from - column) * w}z`
    }
  return path
}

/** Where the name of painted cells stands: the left end of the lowest row that has any. */
export function cellsName(cells: Cells): [number, number] {
  const rows = cellsPath(cells, 1, 1).matchAll(/M(\S+) (\S+)h/g)
  const last = [...rows].map(([, x, y]): [number, number] => [Number(x), Number(y) + 1 / cells.rows])
  const lowest = Math.max(...last.map(([, y]) => y))
  return last.find(([, y]) => y === lowest) ?? [0, 0]
}
