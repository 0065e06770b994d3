import { computed, ref, type Ref } from 'vue'

import { blank, isPainted, painted } from './cells'
import type { Point } from './things'
import type { Picture } from './usePicture'

/** Painting an area in cells of a grid: what the first cell is, the stroke takes away or adds. */
export function useBrush(picture: Picture, aspect: Ref<number>) {
  const size = ref(3) // of the brush, in cells
  const at = ref<{ column: number; row: number }>() // the cell under the pointer, or the keyboard's
  let stroke: { on: boolean; last: Point } | undefined

  /** The cells that a stroke changes: those of the area that is picked, else new ones. */
  const cells = computed(
    () => picture.cells.value ?? blank(32, Math.max(4, Math.min(96, Math.round(32 / aspect.value)))),
  )
  const cellAt = (p: Point) => ({
    column: Math.max(0, Math.min(cells.value.columns - 1, Math.floor(p[0] * cells.value.columns))),
    row: Math.max(0, Math.min(cells.value.rows - 1, Math.floor(p[1] * cells.value.rows))),
  })

  function lay(from: Point, to: Point, on: boolean) {
    const steps = Math.ceil(
      Math.max(1, Math.abs(to[0] - from[0]) * cells.value.columns, Math.abs(to[1] - from[1]) * cells.value.rows),
    )
    const way = Array.from({ length: steps + 1 }, (_, i): Point => [
      from[0] + ((to[0] - from[0]) * i) / steps,
      from[1] + ((to[1] - from[1]) * i) / steps,
    ])
    picture.holdCells(painted(cells.value, way.map(cellAt), size.value, on))
  }
  function begin(p: Point, off: boolean) {
    const { column, row } = cellAt(p)
    stroke = { on: !off && !isPainted(cells.value, column, row), last: p }
    lay(p, p, stroke.on)
  }
  function move(p: Point) {
    at.value = cellAt(p)
    if (!stroke) return
    lay(stroke.last, p, stroke.on)
    stroke.last = p
  }
  function end() {
    if (stroke) picture.keepCells()
    stroke = undefined
  }
  function giveUp() {
    if (!stroke) return false
    stroke = undefined
    picture.hold(undefined)
    return true
  }
  /** Arrows move a cell, Space paints there or takes away. */
  function key(event: KeyboardEvent) {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key]
    const here = at.value ?? { column: cells.value.columns >> 1, row: cells.value.rows >> 1 }
    const middle = (c: typeof here): Point => [(c.column + 0.5) / cells.value.columns, (c.row + 0.5) / cells.value.rows]
    if (by) {
      const step = event.shiftKey ? 5 : 1
      const [x, y] = middle(here)
      at.value = cellAt([x + (by[0]! * step) / cells.value.columns, y + (by[1]! * step) / cells.value.rows])
    } else if (event.key === ' ') {
      at.value = here
      begin(middle(here), false)
      end()
    } else return false
    return true
  }
  const widen = (cells: number) => (size.value = cells)
  return { size, widen, at, cells, begin, move, end, giveUp, key }
}
export type Brush = ReturnType<typeof useBrush>
