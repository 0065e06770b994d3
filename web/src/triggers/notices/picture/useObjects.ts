import { computed } from 'vue'

import { choices } from '../../../api/format'
import { useSite } from '../../../site/useSite'

/** Everything that walks: the plan's own things, and the ready-made ones. */
export function useObjects() {
  const site = useSite()
  return computed(() => {
    const own = (site.plan?.objects ?? []).map((o) => [o.id, o.name] as const)
    return [...own, ...choices.objects.value.filter(([id]) => !own.some(([o]) => o === id))]
  })
}
