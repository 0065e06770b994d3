import { useEventListener, useMediaQuery } from '@vueuse/core'
import type { Ref } from 'vue'

import { useSite } from '../../site/useSite'
import { DAY, dayOf, WEEK, type Span } from '../../time/week'
import { useHand, type Stroke } from '../../hand/useHand'
import { useEdges, type Edge } from './useEdges'
import { useHeldClick } from './useHeldClick'
import { usePaint } from './usePaint'

interface Area {
  /** The element whose width is the time in view. */
  element: Ref<HTMLElement | null>
  /** Ids of all channels in the order shown. */
  order: Ref<string[]>
  /** The channel at a height of the window. */
  channelAt: (clientY: number) => string | undefined
}

/**
 * Painting with the pointer: press, drag, release. The stroke covers all selected channels when it begins on one of
 * them, else the rows dragged over. Shift snaps to 5 minutes, Ctrl to 1, else to 30. Looking at a day or less, the
 * edges of blocks can be dragged, to the minute. A double click paints the day. Esc abandons.
 */
export function usePainting(area: Area) {
  const site = useSite()
  const hand = useHand()
  const { paint, paintHours } = usePaint()
  const reading = useMediaQuery('(max-width: 500px)') // a phone, where the shelf is not shown
  let origin: { minute: number; channel: string; edge?: Edge; x: number; moved: boolean } | undefined
  const click = useHeldClick(finish)

  function minuteAt(event: { clientX: number }): number {
    const box = area.element.value!.getBoundingClientRect()
    const { from, to } = hand.view
    return Math.max(from, Math.min(to, from + ((event.clientX - box.left) / box.width) * (to - from)))
  }

  const { edge, edgeAt, drag } = useEdges(() => area.element.value!.getBoundingClientRect().width, minuteAt)

  const coarse = () => (hand.view.to - hand.view.from <= 180 ? 1 : hand.view.to - hand.view.from < DAY ? 5 : 30)
  const grain = (event: PointerEvent) =>
    event.ctrlKey || event.metaKey ? 1 : event.shiftKey ? Math.min(5, coarse()) : coarse()

  function down(event: PointerEvent) {
    const channel = area.channelAt(event.clientY)
    if (event.button !== 0 || !channel || reading.value) return
    const minute = minuteAt(event)
    if (event.altKey) {
      hand.picked = dutyAt(channel, minute) ?? hand.picked
      return
    }
    click.elsewhere(event)
    const target = event.currentTarget as HTMLElement
    target.setPointerCapture(event.pointerId)
    origin = { minute, channel, edge: edgeAt(event, channel), x: event.clientX, moved: false }
    follow(event)
  }

  function move(event: PointerEvent) {
    const channel = area.channelAt(event.clientY)
    hand.pointer = channel ? { channel, minute: Math.min(hand.view.to - 1, Math.floor(minuteAt(event))) } : undefined
    if (origin) follow(event)
    else edge.value = channel && !reading.value ? edgeAt(event, channel) : undefined
  }

  function follow(event: PointerEvent) {
    if (!origin) return
    origin.moved ||= Math.abs(event.clientX - origin.x) > 3
    if (origin.edge) {
      drag(event, origin.edge)
      return
    }
    const g = grain(event)
    const [a, b] = [origin.minute, minuteAt(event)].sort((x, y) => x - y) as [number, number]
    const from = Math.max(0, Math.min(Math.ceil(hand.view.to) - g, Math.round(a / g) * g))
    const span: Span = { from, to: Math.min(WEEK, Math.max(from + g, Math.round(b / g) * g)) }
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

  function up(event: PointerEvent) {
    const stroke = hand.stroke
    const clicked = origin && !origin.moved && !origin.edge
    origin = undefined
    if (!stroke) return
    if (clicked) {
      click.hold(stroke, event) // it stays in view meanwhile
      return
    }
    click.release()
    finish(stroke)
  }

  /** Sends a stroke, and lets go of it; in this order, as what is drawn would keep it from being sent. */
  function finish(stroke: Stroke) {
    void paint(stroke.channels, stroke.span, stroke.duty ?? hand.duty, stroke.duty ? 'right through' : hand.means)
    if (!origin) hand.stroke = undefined
  }

  /** A double click means the whole day. */
  function double(event: MouseEvent) {
    const channel = area.channelAt(event.clientY)
    if (!channel || reading.value || event.altKey) return
    click.forget()
    hand.stroke = undefined
    const day = dayOf(Math.min(WEEK - 1, Math.floor(minuteAt(event))))
    void paint(hand.selection.includes(channel) ? hand.selection : [channel], { from: day * DAY, to: (day + 1) * DAY })
  }

  function abandon() {
    click.forget()
    origin = undefined
    edge.value = undefined
    hand.stroke = undefined
  }

  function dutyAt(channel: string, minute: number): string | undefined {
    return site.ribbons.get(channel)?.rail.findLast((step) => step.from <= minute)?.duty
  }

  useEventListener(document, 'keydown', (event) => {
    if (event.key !== 'Escape' || !hand.stroke) return
    abandon()
    event.preventDefault() // one Esc, one thing
  })

  function leave() {
    hand.pointer = undefined
    if (!origin) edge.value = undefined
  }

  return { down, move, up, double, abandon, paint, paintHours, leave, minuteAt, edge }
}
