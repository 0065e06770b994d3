import { useSite } from '../../site/useSite'
import type { useCopy } from './useCopy'
import { useCopyDrag } from './useCopyDrag'
import { useHand } from '../../hand/useHand'

const dayUnder = (event: PointerEvent) => {
  const heading = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-day-heading]')
  return heading ? Number(heading.dataset.dayHeading) : undefined
}

/** A day's heading dragged onto others: copies the day, on the channels selected or on all. */
export function useDayDrag(copy: ReturnType<typeof useCopy>) {
  const site = useSite()
  const hand = useHand()
  return useCopyDrag<number>(copy, {
    begin: dayUnder,
    reach(from, event) {
      const [a, b] = [from, dayUnder(event) ?? from].sort((x, y) => x - y) as [number, number]
      return Array.from({ length: b - a + 1 }, (_, i) => a + i).filter((d) => d !== from)
    },
    act: (from, onto) =>
      copy.day(
        hand.selection.length ? hand.selection : (site.plan?.channels ?? []).map((c) => c.id),
        from,
        onto,
        'Release to copy, Esc to cancel.',
      ),
  })
}
