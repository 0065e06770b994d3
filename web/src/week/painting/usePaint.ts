import type { Edit, Hours } from '../../api/types'
import { useHand } from '../../hand/useHand'
import { useSharedWeeks } from '../../hand/useSharedWeeks'
import { useSite } from '../../site/useSite'
import { hoursOf, spansOf } from '../../time/echo'
import { WEEK, type Span } from '../../time/week'

/** Paints channels with a duty, however it was said where. Channels that follow a named week ask once what is meant. */
export function usePaint() {
  const site = useSite()
  const hand = useHand()
  const shared = useSharedWeeks()

  /** Paints a span of the week. */
  async function paint(channels: string[], span: Span, duty = hand.duty, means = hand.means) {
    const hours = span.from === 0 && span.to === WEEK ? [{ from: '00:00', to: '24:00' }] : hoursOf(span, means)
    await paintHours(channels, hours, spansOf(hours), duty)
  }

  /** Paints channels over hours, of which the spans are drawn until the server has answered. */
  async function paintHours(channels: string[], hours: Hours[], spans: Span[], duty = hand.duty) {
    const sorted = shared.sort(channels)
    const groups = sorted instanceof Promise ? await sorted : sorted
    if (!groups || !duty) return
    const edits: Edit[] = [...groups.first]
    if (groups.own.length) edits.push({ paint: { channels: groups.own, hours, duty } })
    if (groups.shared.length) edits.push({ paint: { channels: groups.shared, hours, duty, shared: true } })
    // Of what was drawn while the stroke was in hand nothing changes under the eye until it is answered.
    const draft = hand.draftOf === JSON.stringify(edits) ? hand.draft : undefined
    if (edits.length) site.change(edits, { channels: [...groups.own, ...groups.followers], spans, duty, draft })
  }

  return { paint, paintHours }
}
