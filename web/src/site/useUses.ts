import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from './useSite'

/** What names a thing of the plan: its channels, alarm inputs, special days. */
export function useUses(kind: string, thing: () => string | undefined) {
  const site = useSite()
  const { data } = useAnswer(
    () => [site.stamp, thing()],
    () => {
      const id = thing()
      if (!id || !site.planId) return undefined
      return api.GET('/api/plans/{id}/uses', { params: { ...site.here, query: { kind, thing: id } } })
    },
    { keep: true },
  )
  const names = computed(() => (data.value ?? []).map((u) => u.name))
  return { uses: data, names }
}
