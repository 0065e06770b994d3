import { useEventListener } from '@vueuse/core'
import { shallowRef } from 'vue'

import type { useCopy } from './useCopy'
import { useHand, type Act } from '../../hand/useHand'

/**
 * Something dragged onto others of its kind copies it onto them. What that would change is counted while dragging;
 * Esc leaves it.
 */
export function useCopyDrag<T>(
  copy: ReturnType<typeof useCopy>,
  what: {
    begin: (event: PointerEvent) => T | undefined
    /** All from the one that is dragged to the one under the pointer, without the first. */
    reach: (from: T, event: PointerEvent) => T[]
    act: (from: T, onto: T[]) => Act | undefined
  },
) {
  const hand = useHand()
  const over = shallowRef<T[]>([])
  let from: { what: T; x: number; y: number } | undefined

  function down(event: PointerEvent) {
    const begun = event.button === 0 ? what.begin(event) : undefined
    if (begun !== undefined) from = { what: begun, x: event.clientX, y: event.clientY }
  }

  useEventListener(document, 'pointermove', (event) => {
    if (!from || Math.hypot(event.clientX - from.x, event.clientY - from.y) < 12) return
    over.value = what.reach(from.what, event)
    copy.consider(what.act(from.what, over.value))
  })

  useEventListener(document, 'pointerup', () => {
    if (from && over.value.length) copy.doIt()
    stop()
  })

  useEventListener(document, 'keydown', (event) => {
    if (event.key !== 'Escape' || !over.value.length) return
    stop()
    event.preventDefault() // one Esc, one thing
  })

  function stop() {
    from = undefined
    if (!over.value.length) return // whatever the pointer let go of was nothing of this
    hand.act = undefined
    over.value = []
  }

  return { over, down }
}
