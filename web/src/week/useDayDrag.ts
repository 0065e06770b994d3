import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'

import { useSite } from '../site/useSite'
import type { useCopy } from './useCopy'
import { useHand } from './useHand'

/** A day's heading dragged onto others: copies the day, on the channels selected or on all. */
export function useDayDrag(copy: ReturnType<typeof useCopy>) {
  const site = useSite()
  const hand = useHand()
  const over = ref<number[]>([])
  let from: { day: number; x: number } | undefined

  function down(event: PointerEvent, day: number) {
    if (event.button === 0) from = { day, x: event.clientX }
  }

  useEventListener(document, 'pointermove', (event) => {
    if (!from || Math.abs(event.clientX - from.x) < 12) return
    const heading = document.elementFromPoint(event.clientX, event.clientY)?.closest<HTMLElement>('[data-day-heading]')
    const day = heading ? Number(heading.dataset.dayHeading) : undefined
    const [a, b] = [from.day, day ?? from.day].sort((x, y) => x - y) as [number, number]
    over.value = Array.from({ length: b - a + 1 }, (_, i) => a + i).filter((d) => d !== from!.day)
    const channels = hand.selection.length ? hand.selection : (site.plan?.channels ?? []).map((c) => c.id)
    copy.consider(copy.day(channels, from.day, over.value, 'Release to copy, Esc to leave it.'))
  })

  useEventListener(document, 'pointerup', () => {
    if (from && over.value.length) copy.doIt()
    stop()
  })

  useEventListener(document, 'keydown', (event) => {
    if (event.key !== 'Escape' || !over.value.length) return
    stop()
    event.preventDefault()
  })

  function stop() {
    if (from && over.value.length) hand.act = undefined
    from = undefined
    over.value = []
  }

  return { over, down }
}
