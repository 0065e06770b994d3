import { computed, ref } from 'vue'

import { again, newKey } from '../api/again'
import { ask, type Question } from '../api/ask'
import { api, fileBody } from '../api/client'
import type { SiteLine } from '../api/types'

/** All sites with their verdicts in small, and what can be done with them. */
export function useSites() {
  const sites = ref<SiteLine[]>()
  const failure = ref('')
  const search = ref('')
  const archived = ref(false)

  async function load() {
    const told = await ask(api.GET('/api/sites'))
    failure.value = told.problem
    if (!told.data) return
    const known = new Map((sites.value ?? []).map((s) => [`${s.plan} ${s.version}`, s.state]))
    sites.value = told.data.map((s) => ({ ...s, state: s.state ?? known.get(`${s.plan} ${s.version}`) }))
    for (const s of sites.value) if (!s.state && !s.archived) await judge(s.id)
  }

  /** Asks for a verdict that the list did not know. */
  async function judge(id: string) {
    const { data } = await ask(api.GET('/api/sites/{id}/verdict', { params: { path: { id } } }))
    sites.value = sites.value?.map((s) => (s.id === id ? { ...s, state: data } : s))
  }

  const shown = computed(() => {
    const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
    return (sites.value ?? [])
      .filter(
        (s) =>
          s.archived === archived.value &&
          words.every((w) => `${s.name} ${s.variant} ${s.customer}`.toLowerCase().includes(w)),
      )
      .sort((a, b) => (b.state?.trouble ?? -1) - (a.state?.trouble ?? -1) || b.changed.localeCompare(a.changed))
  })

  /** Does something with a site; where it fails, says what is as it was. */
  async function act(what: Question<unknown>, not: string) {
    const told = await ask(what)
    if (told.problem) failure.value = `${told.problem} ${not}`
    else await load()
  }

  const archive = (s: SiteLine, archived: boolean) =>
    act(
      api.POST('/api/sites/{id}/archive', { params: { path: { id: s.id } }, body: { archived } }),
      `${s.name} is where it was.`,
    )

  function duplicate(s: SiteLine) {
    const params = { path: { id: s.id }, header: { 'Idempotency-Key': newKey() } }
    const body = { name: `${s.name} (copy)`.slice(0, 200) }
    return act(
      again(() => api.POST('/api/sites/{id}/duplicate', { params, body })),
      'Nothing was made.',
    )
  }

  /** Makes a site from a plan file; the id of the site, or nothing and a failure. */
  async function importPlan(file: File): Promise<string | undefined> {
    const params = { header: { 'Idempotency-Key': newKey() } }
    const told = await ask(again(() => api.POST('/api/sites', { params, ...fileBody(file) })))
    failure.value = told.data ? '' : `${told.status ? `${file.name}: ` : ''}${told.problem} Nothing was imported.`
    return told.data?.id
  }

  return { sites, failure, search, archived, shown, load, archive, duplicate, importPlan }
}
