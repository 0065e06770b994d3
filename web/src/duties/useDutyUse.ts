import { computed, type Ref } from 'vue'
import { useSite } from '../site/useSite'

/** Which channels have a duty somewhere in their week. */
export function useDutyUse(duty: Ref<string | undefined>) {
  const site = useSite()
  const users = computed(() =>
    [...site.ribbons.values()].filter((r) => r.rail.some((step) => step.duty === duty.value)).map((r) => r.id),
  )
  return { users }
}
