import { shallowRef, watch } from 'vue'

import { api } from '../api/client'
import type { Draft } from '../api/types'
import { useSite } from '../site/useSite'
import { useHand } from './useHand'

/**
 * Asks the server what the stroke in hand would change. One question is out at a time; the newest stroke is asked
 * about next.
 */
export function useDraft() {
  const site = useSite()
  const hand = useHand()
  const draft = shallowRef<Draft>()
  let asking = false
  let again = false

  async function ask() {
    if (asking) {
      again = true
      return
    }
    asking = true
    do {
      again = false
      const stroke = hand.stroke
      if (!stroke || !hand.duty) break
      try {
        const { data } = await api.POST('/api/sites/{id}/draft', {
          params: { path: { id: site.id } },
          body: { version: site.version, edits: [{ paint: { channels: stroke.channels, hours: hand.hours, duty: hand.duty } }] },
        })
        draft.value = data
      } catch {
        draft.value = undefined // without a server there is no figure, and the stroke itself is kept
      }
    } while (again)
    asking = false
  }

  watch(() => [hand.stroke?.span.from, hand.stroke?.span.to, hand.stroke?.channels.length, hand.reach], () => void ask(), { immediate: true })
  return { draft }
}
