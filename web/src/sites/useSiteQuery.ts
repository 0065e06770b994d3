import { computed, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import type { components } from '../api/schema'
import type { SiteLine } from '../api/types'

export type SiteSearch = components['schemas']['SiteSearch']
export type Stage = SiteLine['stage']

export const stages: { id: Stage; name: string }[] = [
  { id: 'planned', name: 'being planned' },
  { id: 'handed', name: 'handed over' },
  { id: 'measure', name: 'to be measured' },
  { id: 'template', name: 'template' },
]
export const stageName = (id: Stage) => stages.find((s) => s.id === id)?.name ?? id

const keys = ['text', 'customer', 'place', 'tags', 'stage', 'only', 'sort'] as const

/** Which sites are shown, and in which order: said by the address, so that it can be kept, sent and gone back to. */
export function useSiteQuery(sites: Ref<SiteLine[] | undefined>) {
  const route = useRoute()
  const router = useRouter()

  const asked = computed<SiteSearch>(() => {
    const q = Object.fromEntries(keys.map((k) => [k, String(route.query[k] ?? '') || undefined]))
    return { ...q, tags: q.tags?.split(',') }
  })

  function set(next: SiteSearch) {
    const all = { ...asked.value, ...next }
    const query = Object.fromEntries(keys.map((k) => [k, all[k]?.toString() || undefined]))
    void router.replace({ query })
  }
  /** Shows what a search says, and nothing of what was shown before. */
  const show = (next: SiteSearch) => set({ ...Object.fromEntries(keys.map((k) => [k, undefined])), ...next })

  const away = computed(() => asked.value.stage === 'away')
  const words = computed(() => (asked.value.text ?? '').toLowerCase().split(/\s+/).filter(Boolean))

  /** Templates are no places, and shown where they are asked for. */
  const among = computed(() =>
    (sites.value ?? []).filter(
      (s) =>
        s.archived === away.value && (away.value || (s.stage === 'template') === (asked.value.stage === 'template')),
    ),
  )
  const shown = computed(() => {
    const q = asked.value
    const fits = among.value.filter(
      (s) =>
        words.value.every((w) =>
          `${s.name} ${s.variant} ${s.customer} ${s.place} ${s.tags.join(' ')}`.toLowerCase().includes(w),
        ) &&
        (!q.customer || s.customer === q.customer) &&
        (!q.place || s.place === q.place) &&
        (q.tags ?? []).every((t) => s.tags.includes(t)) &&
        (!q.stage || away.value || s.stage === q.stage) &&
        (q.only !== 'short' || s.state?.short) &&
        (q.only !== 'errors' || (s.state?.errors ?? 0) > 0),
    )
    const late = (a: SiteLine, b: SiteLine) => b.changed.localeCompare(a.changed)
    if (q.sort === 'changed') return fits.sort(late)
    if (q.sort === 'name') return fits.sort((a, b) => a.name.localeCompare(b.name))
    return fits.sort((a, b) => (b.state?.trouble ?? -1) - (a.state?.trouble ?? -1) || late(a, b))
  })

  /** What the sites that are shown have of something, to choose from; each with how many have it. */
  const choices = (of: (s: SiteLine) => string[]) =>
    computed(() => {
      const n = new Map<string, number>()
      for (const s of among.value) for (const v of of(s)) if (v) n.set(v, (n.get(v) ?? 0) + 1)
      return [...n].sort((a, b) => a[0].localeCompare(b[0])).map(([name, count]) => ({ name, count }))
    })
  const customers = choices((s) => [s.customer])
  const places = choices((s) => [s.place])
  const tags = choices((s) => s.tags)
  const narrowed = computed(() => keys.some((k) => k !== 'sort' && asked.value[k]?.length))

  return { asked, set, show, away, shown, customers, places, tags, narrowed }
}
