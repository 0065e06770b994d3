import { ref } from 'vue'

import { useHand } from '../../hand/useHand'
import { useSite } from '../../site/useSite'
import { DAY, WEEK } from '../../time/week'

/** An edge between two blocks of a channel. */
export interface Edge {
  channel: string
  minute: number
  before: string
  after: string
}

/** How near to an edge the pointer takes it, in pixels, and how closely the week must be looked at for that. */
const NEAR = 5
const CLOSE = DAY

/** Edges of blocks, which can be dragged to the minute where the week is looked at closely. */
export function useEdges(width: () => number, minuteAt: (event: PointerEvent) => number) {
  const site = useSite()
  const hand = useHand()
  const edge = ref<Edge>() // under the pointer, or being dragged

  /** The edge under the pointer, where the week is looked at closely enough. */
  function edgeAt(event: PointerEvent, channel: string): Edge | undefined {
    const length = hand.view.to - hand.view.from
    if (length > CLOSE) return undefined
    const reach = (NEAR * length) / width()
    const minute = minuteAt(event)
    const rail = site.ribbons.get(channel)?.rail ?? []
    const i = rail.findIndex((step, k) => k > 0 && Math.abs(step.from - minute) <= reach)
    return i > 0 ? { channel, minute: rail[i]!.from, before: rail[i - 1]!.duty, after: rail[i]!.duty } : undefined
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

  return { edge, edgeAt, drag }
}
