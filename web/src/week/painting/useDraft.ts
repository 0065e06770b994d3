import { computed, watch } from 'vue'

import { ask as answer } from '../../api/ask'
import { api } from '../../api/client'
import type { Edit } from '../../api/types'
import { useSite } from '../../site/useSite'
import { useHand } from '../../hand/useHand'

/**
 * Asks the server what the stroke or the act in hand would change, which is then in hand too. One question is out at a
 * time; the newest one is asked next.
 */
export function useDraft() {
  const site = useSite()
  const hand = useHand()
  hand.draft = undefined // what was answered last was of another
  let asking: AbortController | undefined
  let again = false

  const edits = computed<Edit[] | undefined>(() => {
    const stroke = hand.stroke
    const duty = stroke?.duty ?? hand.duty
    if (stroke && duty) return [{ paint: { channels: stroke.channels, hours: hand.hours, duty } }]
    return hand.act?.edits
  })

  async function ask() {
    if (asking) {
      again = true
      if (!edits.value?.length) asking.abort() // nobody waits for it, and it would be in the way of the change itself
      return
    }
    do {
      again = false
      if (!edits.value?.length) break // what was answered last stays until the change itself is
      asking = new AbortController()
      const { signal } = asking
      const body = { version: site.version, edits: edits.value }
      const about = JSON.stringify(edits.value)
      const told = await answer(api.POST('/api/plans/{id}/draft', { params: site.here, body, signal }))
      if (signal.aborted) continue
      // Without a server there is no figure, and the stroke itself is kept.
      hand.draft = told.data
      hand.draftOf = about
    } while (again)
    asking = undefined
  }

  watch(
    () => JSON.stringify(edits.value),
    () => void ask(),
    { immediate: true },
  )
}
