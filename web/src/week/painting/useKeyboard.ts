import { ref, type Ref } from 'vue'

import { useSite } from '../../site/useSite'
import { DAY, type Span } from '../../time/week'
import { useHand } from '../../hand/useHand'

/**
 * The keyboard on the grid: arrows move a cursor of half an hour, Shift+arrows extend it, Ctrl+arrows go by days, a
 * digit picks a duty and paints it, Enter paints the duty in hand, Space selects the channel. Ctrl+C copies the day
 * under the cursor, or without a cursor the week of the channel selected; Ctrl+V puts it onto what is selected.
 */
export function useKeyboard(
  order: Ref<string[]>,
  paint: (channels: string[], span: Span) => void,
  reveal: (channel: string) => void,
) {
  const site = useSite()
  const hand = useHand()
  const cursor = ref<{ row: number; last: number; at: number; to: number }>()

  /** How far an arrow goes: finer when looking closely. */
  const STEP = () => (hand.view.to - hand.view.from <= 180 ? 1 : hand.view.to - hand.view.from < DAY ? 5 : 30)

  function key(event: KeyboardEvent) {
    const digit = Number(event.key)
    if (digit >= 1 && digit <= 9 && !event.ctrlKey && !event.metaKey && !event.altKey) {
      const duty = site.plan?.duties[digit - 1]
      if (!duty) return
      hand.picked = duty.id
      if (cursor.value) commit()
    } else if (event.key === 'Enter' && cursor.value) commit()
    else if (event.key === ' ' && cursor.value) {
      const id = order.value[cursor.value.last]
      if (id) hand.select(id, event.shiftKey ? 'through' : 'beside', order.value)
    } else if (event.key === 'Escape' && cursor.value) cursor.value = undefined
    else if (event.key.startsWith('Arrow')) travel(event)
    else return
    event.preventDefault()
  }

  function travel(event: KeyboardEvent) {
    const c = cursor.value ?? { row: 0, last: 0, at: hand.view.from, to: hand.view.from }
    const step = event.ctrlKey || event.metaKey ? DAY : STEP()
    const [down, right] = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[
      event.key
    ] ?? [0, 0]
    const last = Math.max(0, Math.min(order.value.length - 1, c.last + (cursor.value ? down! : 0)))
    const to = Math.max(hand.view.from, Math.min(hand.view.to - STEP(), c.to + (cursor.value ? right! * step : 0)))
    cursor.value = event.shiftKey ? { ...c, last, to } : { row: last, last, at: to, to }
    const id = order.value[last]
    if (id) reveal(id)
    hand.pointer = id ? { channel: id, minute: to } : undefined
  }

  const span = (): Span => {
    const c = cursor.value!
    return { from: Math.min(c.at, c.to), to: Math.max(c.at, c.to) + STEP() }
  }

  function covers(row: number): boolean {
    const c = cursor.value
    return !!c && row >= Math.min(c.row, c.last) && row <= Math.max(c.row, c.last)
  }

  /** The channels and days under the cursor; without one, the channels selected. */
  function reached(): { channels: string[]; days: number[] } {
    if (!cursor.value) return { channels: hand.selection, days: [] }
    const rows = order.value.filter((_, i) => covers(i))
    const { from, to } = span()
    const days = [0, 1, 2, 3, 4, 5, 6].filter((d) => d * DAY < to && (d + 1) * DAY > from)
    return { channels: rows.length === 1 && hand.selection.includes(rows[0]!) ? hand.selection : rows, days }
  }

  function commit() {
    const rows = order.value.filter((_, i) => covers(i))
    const selected = rows.length === 1 && hand.selection.includes(rows[0]!) ? hand.selection : rows
    paint(selected, span())
  }

  /** The cursor on a channel's row, if it is there. */
  function on(channel: string): Span | undefined {
    return cursor.value && covers(order.value.indexOf(channel)) ? span() : undefined
  }

  return { key, on, reached, leave: () => (cursor.value = undefined) }
}
