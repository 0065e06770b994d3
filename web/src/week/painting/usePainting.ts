import { useEventListener, useMediaQuery } from '@vueuse/core'
import { ref, type Ref } from 'vue'

import type { Edit, Hours } from '../../api/types'
import { useSite } from '../../site/useSite'
import { hoursOf, spansOf } from '../../time/echo'
import { DAY, dayOf, WEEK, type Span } from '../../time/week'
import { useHand, type Stroke } from '../../hand/useHand'
import { useSharedWeeks } from '../../hand/useSharedWeeks'

interface Area {
  /** The element whose width is the time in view. */
  element: Ref<HTMLElement | null>
  /** Ids of all channels in the order shown. */
  order: Ref<string[]>
  /** The channel at a height of the window. */
  channelAt: (clientY: number) => string | undefined
}

/** An edge between two blocks of a channel. */
interface Edge {
  channel: string
  minute: number
  before: string
  after: string
}

/** How near to an edge the pointer takes it, in pixels, and how closely the week must be looked at for that. */
const NEAR = 5
const CLOSE = DAY

/** How long a click waits for a second one, which means the whole day. */
const DOUBLE = 230

/**
 * Painting with the pointer: press, drag, release. The stroke covers all selected channels when it begins on one of
 * them, else the rows dragged over. Shift snaps to 5 minutes, Ctrl to 1, else to 30. Looking at a day or less, the
 * edges of blocks can be dragged, to the minute. A double click paints the day. Esc abandons.
 */
export function usePainting(area: Area) {
  const site = useSite()
  const hand = useHand()
  const shared = useSharedWeeks()
  const reading = useMediaQuery('(max-width: 500px)') // a phone, where the shelf is not shown
  const edge = ref<Edge>() // under the pointer, or being dragged
  let origin: { minute: number; channel: string; edge?: Edge; x: number; moved: boolean } | undefined
  /** A click that waits for a second one. */
  let held: { stroke: Stroke; timer: ReturnType<typeof setTimeout>; x: number; y: number } | undefined

  function minuteAt(event: { clientX: number }): number {
    const box = area.element.value!.getBoundingClientRect()
    const { from, to } = hand.view
    return Math.max(from, Math.min(to, from + ((event.clientX - box.left) / box.width) * (to - from)))
  }

  const coarse = () => (hand.view.to - hand.view.from <= 180 ? 1 : hand.view.to - hand.view.from < DAY ? 5 : 30)
  const grain = (event: PointerEvent) =>
    event.ctrlKey || event.metaKey ? 1 : event.shiftKey ? Math.min(5, coarse()) : coarse()

  /** The edge under the pointer, where the week is looked at closely enough. */
  function edgeAt(event: PointerEvent, channel: string): Edge | undefined {
    const length = hand.view.to - hand.view.from
    if (length > CLOSE) return undefined
    const reach = (NEAR * length) / area.element.value!.getBoundingClientRect().width
    const minute = minuteAt(event)
    const rail = site.ribbons.get(channel)?.rail ?? []
    const i = rail.findIndex((step, k) => k > 0 && Math.abs(step.from - minute) <= reach)
    return i > 0 ? { channel, minute: rail[i]!.from, before: rail[i - 1]!.duty, after: rail[i]!.duty } : undefined
  }

  function down(event: PointerEvent) {
    const channel = area.channelAt(event.clientY)
    if (event.button !== 0 || !channel || reading.value) return
    const minute = minuteAt(event)
    if (event.altKey) {
      hand.picked = dutyAt(channel, minute) ?? hand.picked
      return
    }
    // At another place: the one before was a single click.
    if (held && Math.hypot(event.clientX - held.x, event.clientY - held.y) > 4) release()
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

  /** Moves an edge: the block that grows takes the time between. */
  function drag(event: PointerEvent, from: Edge) {
    const g = event.shiftKey ? 5 : 1
    const to = Math.max(0, Math.min(WEEK, Math.round(minuteAt(event) / g) * g))
    if (to === from.minute) hand.stroke = undefined
    else {
      hand.stroke = {
        span: { from: Math.min(to, from.minute), to: Math.max(to, from.minute) },
        channels: [from.channel],
        duty: to < from.minute ? from.after : from.before,
      }
    }
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
    if (!clicked) {
      release()
      finish(stroke)
    } else if (!held) {
      // It stays in view meanwhile.
      held = { stroke, timer: setTimeout(release, DOUBLE), x: event.clientX, y: event.clientY }
    }
  }

  /** A click for which no second one came paints what it is on. */
  function release() {
    const click = held
    held = undefined
    clearTimeout(click?.timer)
    if (click) finish(click.stroke)
  }

  function finish(stroke: Stroke) {
    if (!origin) hand.stroke = undefined
    void paint(stroke.channels, stroke.span, stroke.duty ?? hand.duty, stroke.duty ? 'right through' : hand.reach)
  }

  /** A double click means the whole day. */
  function double(event: MouseEvent) {
    const channel = area.channelAt(event.clientY)
    if (!channel || reading.value || event.altKey) return
    forget()
    hand.stroke = undefined
    const day = dayOf(Math.min(WEEK - 1, Math.floor(minuteAt(event))))
    void paint(hand.selection.includes(channel) ? hand.selection : [channel], { from: day * DAY, to: (day + 1) * DAY })
  }

  function forget() {
    clearTimeout(held?.timer)
    held = undefined
  }

  function abandon() {
    forget()
    origin = undefined
    edge.value = undefined
    hand.stroke = undefined
  }

  function dutyAt(channel: string, minute: number): string | undefined {
    return site.ribbons.get(channel)?.rail.findLast((step) => step.from <= minute)?.duty
  }

  /** Paints channels with a duty. Channels that follow a named week ask once what is meant. */
  async function paint(channels: string[], span: Span, duty = hand.duty, reach = hand.reach) {
    const hours = span.from === 0 && span.to === WEEK ? [{ from: '00:00', to: '24:00' }] : hoursOf(span, reach)
    await paintHours(channels, hours, spansOf(hours), duty)
  }

  /** Paints channels over hours, of which the spans are drawn until the server has answered. */
  async function paintHours(channels: string[], hours: Hours[], spans: Span[], duty = hand.duty) {
    const groups = await shared.sort(channels)
    if (!groups || !duty) return
    const edits: Edit[] = [...groups.first]
    if (groups.own.length) edits.push({ paint: { channels: groups.own, hours, duty } })
    if (groups.shared.length) edits.push({ paint: { channels: groups.shared, hours, duty, shared: true } })
    if (edits.length) site.change(edits, { channels: [...groups.own, ...groups.followers], spans, duty })
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
