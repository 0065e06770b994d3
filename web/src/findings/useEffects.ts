import { onScopeDispose, ref, watch } from 'vue'

import { api } from '../api/client'
import type { FixEffect } from '../api/types'
import { useSite } from '../site/useSite'

/** What the fixes of the findings would do, by finding; asked anew for every revision. */
export function useEffects() {
  const site = useSite()
  const effects = ref(new Map<string, FixEffect>())
  let over = false
  onScopeDispose(() => (over = true))
  watch(
    () => [site.id, site.version],
    async () => {
      const version = site.version
      const { data } = await api.GET('/api/plans/{id}/fixes', { params: site.here }).catch(() => ({ data: undefined }))
      if (!over && version === site.version) effects.value = new Map((data ?? []).map((e) => [e.id, e]))
    },
    { immediate: true },
  )
  return effects
}
