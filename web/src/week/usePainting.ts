import { useEventListener, useMediaQuery } from '@vueuse/core'
import { type Ref } from 'vue'

import type { Edit } from '../api/types'
import { useSite } from '../site/useSite'
import { hoursOf, spansOf, type Span } from './time'
import { useHand } from './useHand'
import { useSharedWeeks } from './useSharedWeeks'

interface Area {
  /** The element whose width is the week. */
  element: Ref<HTMLElement | null>
  /** Ids of all channels in the order shown. */
  order: Ref<string[]>
  /** The channel at a height of the window. */
  channelAt: (clientY: number) => string | undefined
}

/**
 * Painting with the pointer: press, drag, release. The stroke covers all selected channels when it begins on one of
 * them, else the rows dragged over. Shift snaps to 5 minutes, Ctrl to 1, else to 30. Esc abandons.
 */
export function usePainting(area: Area) {
  const site = useSite()
  const hand = useHand()
  const shared = useSharedWeeks()
  const reading = useMediaQuery('(max-width: 760px)') // a phone, where the shelf is not shown
  let origin: { minute: number; channel: string } | undefined

  function minuteAt(event: PointerEvent | MouseEvent): number {
    const box = area.element.value!.getBoundingClientRect()
    const { from, to } = hand.view
    return Math.max(from, Math.min(to, from + ((event.clientX - box.left) / box.width) * (to - from)))
  }

  const grain = (event: PointerEvent) => (event.ctrlKey || event.metaKey ? 1 : event.shiftKey ? 5 : 30)

  function down(event: PointerEvent) {
    const channel = area.channelAt(event.clientY)
    if (event.button !== 0 || !channel || reading.value) return
    const minute = minuteAt(event)
    if (event.altKey) {
      hand.picked = dutyAt(channel, minute) ?? hand.picked
      return
    }
    const target = event.currentTarget as HTMLElement
    target.setPointerCapture(event.pointerId)
    origin = { minute, channel }
    follow(event)
  }

  function move(event: PointerEvent) {
    const channel = area.channelAt(event.clientY)
    hand.pointer = channel ? { channel, minute: Math.min(hand.view.to - 1, Math.floor(minuteAt(event))) } : undefined
    if (origin) follow(event)
  }

  function follow(event: PointerEvent) {
    if (!origin) return
    const g = grain(event)
    const [a, b] = [origin.minute, minuteAt(event)].sort((x, y) => x - y) as [number, number]
    const from = Math.min(hand.view.to - g, Math.round(a / g) * g)
    const span: Span = { from, to: Math.min(hand.view.to, Math.max(from + g, Math.round(b / g) * g)) }
    hand.stroke = { span, channels: channelsTo(event.clientY) }
  }

  /** The channels of the stroke when the pointer is at a height. */
  function channelsTo(clientY: number): string[] {
    if (hand.selection.includes(origin!.channel)) return hand.selection
    const order = area.order.value
    const last = area.channelAt(clientY) ?? hand.stroke?.channels.at(-1) ?? origin!.channel
    const [a, b] = [order.indexOf(origin!.channel), order.indexOf(last)].sort((x, y) => x - y) as [number, number]
    return order.slice(a, b + 1)
  }

  function up() {
    const stroke = hand.stroke
    abandon()
    if (stroke) void paint(stroke.channels, stroke.span)
  }

  function abandon() {
    origin = undefined
    hand.stroke = undefined
  }

  function dutyAt(channel: string, minute: number): string | undefined {
    return site.ribbons.get(channel)?.rail.findLast((step) => step.from <= minute)?.duty
  }

  /** Paints channels with the duty in hand. Channels that follow a named week ask once what is meant. */
  async function paint(channels: string[], span: Span, duty = hand.duty) {
    const hours = hoursOf(span, hand.reach)
    const spans = spansOf(hours)
    const groups = await shared.sort(channels)
    if (!groups || !duty) return
    const edits: Edit[] = []
    if (groups.own.length) edits.push({ paint: { channels: groups.own, hours, duty } })
    if (groups.shared.length) edits.push({ paint: { channels: groups.shared, hours, duty, shared: true } })
    site.change(edits, { channels: [...groups.own, ...groups.followers], spans, duty })
  }

  useEventListener(document, 'keydown', (event) => {
    if (event.key !== 'Escape' || !hand.stroke) return
    abandon()
    event.preventDefault() // one Esc, one thing
  })

  return { down, move, up, abandon, paint, leave: () => (hand.pointer = undefined) }
}
