import { computed, ref } from 'vue'

import { again, newKey } from '../api/again'
import { author } from '../api/author'
import { api, inWords } from '../api/client'
import type { SiteLine, Problem } from '../api/types'

/** How much trouble a site is in: errors and days missing first, then warnings. Higher is worse. */
function trouble(s: SiteLine): number {
  const state = s.state
  if (!state) return -1
  const { keptDays, requiredDays } = state.verdict
  const missing = keptDays != null && requiredDays ? Math.max(0, 1 - keptDays / requiredDays) : 0
  return missing * 1e6 + state.errors * 1e3 + state.warnings
}

/** All sites with their verdicts in small, and what can be done with them. */
export function useSites() {
  const sites = ref<SiteLine[]>()
  const failure = ref('')
  const search = ref('')
  const archived = ref(false)

  async function load() {
    failure.value = ''
    try {
      const { data, error } = await api.GET('/api/sites')
      if (!data) {
        failure.value = inWords(error as Problem)
        return
      }
      const known = new Map((sites.value ?? []).map((s) => [`${s.id} ${s.version}`, s.state]))
      sites.value = data.map((s) => ({ ...s, state: s.state ?? known.get(`${s.id} ${s.version}`) }))
      for (const s of sites.value) if (!s.state && !s.archived) await judge(s.id)
    } catch {
      failure.value = 'The server does not answer.'
    }
  }

  /** Asks for a verdict that the list did not know. */
  async function judge(id: string) {
    const { data } = await api.GET('/api/sites/{id}/verdict', { params: { path: { id } } })
    sites.value = sites.value?.map((s) => (s.id === id ? { ...s, state: data } : s))
  }

  const shown = computed(() => {
    const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
    return (sites.value ?? [])
      .filter((s) => s.archived === archived.value && words.every((w) => `${s.name} ${s.variant} ${s.customer}`.toLowerCase().includes(w)))
      .sort((a, b) => trouble(b) - trouble(a) || b.changed.localeCompare(a.changed))
  })

  async function act(what: () => Promise<{ error?: unknown; response: Response }>, not: string) {
    failure.value = ''
    try {
      const { error, response } = await what()
      if (!response.ok) failure.value = `${inWords(error as Problem)} ${not}`
      else await load()
    } catch {
      failure.value = `The server does not answer. ${not}`
    }
  }

  const archive = (s: SiteLine, away: boolean) =>
    act(() => api.POST('/api/sites/{id}/archive', { params: { path: { id: s.id } }, body: { archived: away } }), `${s.name} is where it was.`)
  function duplicate(s: SiteLine) {
    const header = { 'Idempotency-Key': newKey() }
    return act(() => again(() => api.POST('/api/sites/{id}/duplicate', { params: { path: { id: s.id }, header }, body: { name: `${s.name} (copy)`.slice(0, 200) } })), 'Nothing was made.')
  }

  /** Makes a site from a plan file; the id of the site, or nothing and a failure. */
  async function importPlan(file: File): Promise<string | undefined> {
    failure.value = ''
    const headers = { 'Content-Type': 'application/json', 'Wakefield-Author': encodeURIComponent(author.value), 'Idempotency-Key': newKey() }
    try {
      const { response } = await again(async () => ({ response: await fetch('/api/sites', { method: 'POST', headers, body: file }) }))
      const answer = await response.json()
      if (response.ok) return answer.id
      failure.value = `${file.name}: ${inWords(answer)}. Nothing was imported.`
    } catch {
      failure.value = 'The server does not answer. Nothing was imported.'
    }
    return undefined
  }

  return { sites, failure, search, archived, shown, load, archive, duplicate, importPlan }
}
