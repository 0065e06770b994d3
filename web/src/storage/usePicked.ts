import { computed, ref } from 'vue'

import type { Channel, Edit } from '../api/types'
import { useSite } from '../site/useSite'

/** Channels that are picked on the page of pools, and what can be set for all of them at once. */
export function usePicked() {
  const site = useSite()
  const ids = ref<string[]>([])
  const channels = computed(() => ids.value.flatMap((id) => site.channels.get(id) ?? []))

  function toggle(id: string, on = !ids.value.includes(id)) {
    ids.value = on ? [...new Set([...ids.value, id])] : ids.value.filter((x) => x !== id)
  }

  /** What all of them have; mixed where they differ. */
  function common<T>(of: (c: Channel) => T | undefined): { value?: T; mixed: boolean } {
    const values = [...new Set(channels.value.map(of))]
    return { value: values.length === 1 ? values[0] : undefined, mixed: values.length > 1 }
  }

  type Limit = 'atLeastDays' | 'atMostDays' | 'quotaGB'
  /** Sets one limit of each, and leaves its others. */
  function limit(which: Limit, value: number) {
    const edits: Edit[] = channels.value.map((c) => ({
      setKeep: { channels: [c.id], keep: { ...c.keep, [which]: value || undefined } },
    }))
    if (edits.length) site.change(edits)
  }

  const matter = (value: number) => site.change([{ setMatters: { channels: ids.value, matters: value } }])
  const move = (pool: string, which = ids.value) => which.length && site.change([{ keepOn: { channels: which, pool } }])

  return { ids, channels, toggle, common, limit, matter, move }
}

export type Picked = ReturnType<typeof usePicked>
