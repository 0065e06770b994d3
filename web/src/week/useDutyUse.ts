import { computed, type Ref } from 'vue'

import type { Duty } from '../api/types'
import { useSite } from '../site/useSite'

/** Which channels have a duty somewhere in their week. */
export function useDutyUse(duty: Ref<string | undefined>) {
  const site = useSite()
  const users = computed(() =>
    [...site.ribbons.values()].filter((r) => r.rail.some((step) => step.duty === duty.value)).map((r) => r.id),
  )
  return { users }
}

/** An id for a new duty, from its name, that no other has. */
export function fresh(name: string, taken: Map<string, Duty>): string {
  const slug = name.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'duty'
  let id = slug
  for (let n = 2; taken.has(id); n++) id = `${slug}-${n}`
  return id
}
