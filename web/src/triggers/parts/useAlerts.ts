import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { Edit } from '../../api/types'
import { useSite } from '../../site/useSite'

/** What causes do beside recording, hour by hour; with edits, as it would be. */
export function useAlerts(trying: () => Edit[] = () => []) {
  const site = useSite()
  return useAnswer(
    () => [site.stamp, JSON.stringify(trying())],
    () => api.POST('/api/plans/{id}/alerts', { params: site.here, body: { edits: trying() } }),
    { debounce: 15, keep: true },
  )
}
