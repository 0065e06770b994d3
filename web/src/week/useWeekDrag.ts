import { useEventListener } from '@vueuse/core'
import { ref, type Ref } from 'vue'

import type { useCopy } from './useCopy'
import { useHand } from './useHand'

/** A channel's name dragged onto others: gives them its week. */
export function useWeekDrag(copy: ReturnType<typeof useCopy>, order: Ref<string[]>, channelAt: (clientY: number) => string | undefined) {
  const hand = useHand()
  const over = ref<string[]>([])
  let from: { channel: string; y: number } | undefined

  function down(event: PointerEvent) {
    const name = (event.target as HTMLElement).closest('.channel')
    const channel = name && channelAt(event.clientY)
    if (channel && event.button === 0 && !event.shiftKey && !event.ctrlKey) from = { channel, y: event.clientY }
  }

  useEventListener(document, 'pointermove', (event) => {
    if (!from || Math.abs(event.clientY - from.y) < 10) return
    const last = channelAt(event.clientY) ?? from.channel
    const [a, b] = [order.value.indexOf(from.channel), order.value.indexOf(last)].sort((x, y) => x - y) as [number, number]
    over.value = order.value.slice(a, b + 1).filter((id) => id !== from!.channel)
    copy.consider(copy.week(from.channel, over.value, 'Release to copy, Esc to leave it.'))
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
    if (over.value.length) hand.act = undefined
    from = undefined
    over.value = []
  }

  return { over, down }
}
