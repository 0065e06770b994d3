import type { Area } from '../api/types'

export type Cells = NonNullable<Area['cells']>

/** Painted cells as the path of a drawing, run by run; the first cell is the highest bit of the first byte. */
export function cellsPath(cells: Cells, width: number, height: number): string {
  const bits = atob(cells.on)
  const isOn = (i: number) => ((bits.charCodeAt(i >> 3) >> (7 - (i & 7))) & 1) === 1
  const [w, h] = [width / cells.columns, height / cells.rows]
  let path = ''
  for (let row = 0; row < cells.rows; row++)
    for (let column = 0; column < cells.columns; column++) {
      const from = column
      while (column < cells.columns && isOn(row * cells.columns + column)) column++
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
