import type { Ref } from 'vue'

import type { useCopy } from './useCopy'
import { useCopyDrag } from './useCopyDrag'

/** A channel's name dragged onto others: gives them its week. */
export function useWeekDrag(
  copy: ReturnType<typeof useCopy>,
  order: Ref<string[]>,
  channelAt: (clientY: number) => string | undefined,
) {
  return useCopyDrag<string>(copy, {
    begin: (event) =>
      (event.target as HTMLElement).closest('.channel') && !event.shiftKey && !event.ctrlKey
        ? channelAt(event.clientY)
        : undefined,
    reach(from, event) {
      const last = channelAt(event.clientY) ?? from
      const [a, b] = [order.value.indexOf(from), order.value.indexOf(last)].sort((x, y) => x - y) as [number, number]
      return order.value.slice(a, b + 1).filter((id) => id !== from)
    },
    act: (from, onto) => copy.week(from, onto, 'Release to copy, Esc to cancel.'),
  })
}
