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

/** An id for something new, from its name, that no other has. */
export function fresh(name: string, taken: ReadonlyMap<string, unknown>): string {
  const slug = name.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-|-$/g, '') || 'new'
  let id = slug
  for (let n = 2; taken.has(id); n++) id = `${slug}-${n}`
  return id
}
