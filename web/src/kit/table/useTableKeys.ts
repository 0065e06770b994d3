import type { Ref } from 'vue'

import type { TableColumn } from '../../api/types'
import type { useGrid } from './useGrid'
import { useTable } from './useTable'

const moves: Record<string, [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-20, 0],
  PageDown: [20, 0],
}

/** What keys do in the table besides moving through it. */
interface Acts {
  edit: (text?: string) => void
  fill: (text?: string) => void
  renumber: (by: 1 | -1) => void
}

/** The keys of spreadsheets. */
export function useTableKeys(
  ids: Ref<string[]>,
  columns: Ref<TableColumn[]>,
  grid: ReturnType<typeof useGrid>,
  act: Acts,
) {
  const table = useTable()
  function key(event: KeyboardEvent) {
    const ctrl = event.ctrlKey || event.metaKey
    const { row, column } = grid.at.value
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
      act.renumber(event.key === 'ArrowUp' ? -1 : 1)
    else if (moves[event.key] && !event.altKey)
      grid.step(
        ...(ctrl ? (moves[event.key]!.map((n) => n * 5000) as [number, number]) : moves[event.key]!),
        event.shiftKey,
      )
    else if (event.key === 'Tab') {
      if (event.shiftKey ? column === 0 : column === columns.value.length - 1) return // out of the table
      grid.step(0, event.shiftKey ? -1 : 1)
    } else if (event.key === 'Home') grid.go(ctrl ? 0 : row, 0, event.shiftKey)
    else if (event.key === 'End') grid.go(ctrl ? ids.value.length - 1 : row, columns.value.length - 1, event.shiftKey)
    else if (event.key === 'Enter' || event.key === 'F2') act.edit()
    else if (event.key === 'Delete' || event.key === 'Backspace') act.fill('')
    else if (event.key === 'Escape' && table.hands.length) table.forget()
    else if (ctrl && event.key.toLowerCase() === 'a') grid.all()
    else if (ctrl && event.key.toLowerCase() === 'd') act.fill()
    else if (event.key.length === 1 && !ctrl && !event.altKey) {
      act.edit('') // the field is there before the character, which so lands in it, also from an input method
      return
    } else return
    event.preventDefault()
  }
  return key
}
