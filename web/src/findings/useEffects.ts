import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'

/** What the fixes of the findings would do, by finding; asked anew for every revision. */
export function useEffects() {
  const site = useSite()
  const { data } = useAnswer(
    () => [site.stamp],
    () => api.GET('/api/plans/{id}/fixes', { params: site.here }),
  )
  return computed(() => new Map((data.value ?? []).map((e) => [e.id, e])))
}
