import { useEventListener } from '@vueuse/core'
import { watch } from 'vue'

import { useHand } from '../hand/useHand'
import { useSite } from '../site/useSite'
import { useCopy } from './copying/useCopy'

/** Where the keyboard's cursor reaches: what is copied, and onto what. */
type Reached = () => { channels: string[]; days: number[] }

/** Keys that work anywhere on the page of the week, except where something is typed. */
export function useShortcuts(reached: Reached, zoom: { key: (event: KeyboardEvent) => boolean }) {
  const site = useSite()
  const hand = useHand()
  const copy = useCopy()

  /** Escape lets go of what is held: first what was copied, then the brush, then the day. */
  function letGo() {
    if (copy.copied) {
      copy.copied = undefined
      copy.consider(undefined)
    } else if (hand.brush) hand.brush = undefined
    else hand.day = undefined
  }

  function copyOrPaste(event: KeyboardEvent) {
    const { channels, days } = reached()
    if (event.key === 'c' && channels.length && !getSelection()?.toString())
      copy.copy({ channel: channels[0]!, ...(days.length && { day: days[0] }) })
    else if (event.key === 'v' && copy.copied) copy.doIt(copy.pasting(channels, days))
    else return
    event.preventDefault()
  }

  useEventListener(document, 'keydown', (event) => {
    const target = event.target as HTMLElement
    const command = event.ctrlKey || event.metaKey
    const isTyping = !!target.closest('input, [role="dialog"]')
    if (event.key === 'Escape' && !event.defaultPrevented && !isTyping) letGo()
    if (isTyping || target.closest('textarea') || event.altKey) return
    if (command) {
      if (!event.shiftKey) copyOrPaste(event)
      return
    }
    if (target.closest('[role="grid"]') || zoom.key(event)) return
    const duty = site.plan?.duties[Number(event.key) - 1]
    if (duty) hand.picked = duty.id
  })

  /** After copying, what Ctrl+V would do is counted for what is selected. */
  watch(
    () => [copy.copied, hand.selection, hand.pointer] as const,
    ([copied]) => {
      if (!copied) return
      const { channels, days } = reached()
      copy.consider(copy.pasting(channels, days))
    },
  )
}
