import { useDocumentVisibility, useIntervalFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { again, newKey } from '../api/again'
import { ask, type Question } from '../api/ask'
import { api, fileBody } from '../api/client'
import type { SiteLine } from '../api/types'

/** How often the list is asked for again while sites of it are being estimated. */
const SOON = 2500

/** All sites with their verdicts in small, and what can be done with them. */
export function useSites() {
  const sites = ref<SiteLine[]>()
  const failure = ref('')

  async function load() {
    const told = await ask(api.GET('/api/sites'))
    failure.value = told.problem
    if (!told.data) return
    const known = new Map((sites.value ?? []).map((s) => [`${s.plan} ${s.version}`, s.state]))
    sites.value = told.data.map((s) => ({ ...s, state: s.state ?? known.get(`${s.plan} ${s.version}`) }))
  }

  /** Sites in work that are not estimated as they are yet. */
  const left = computed(() => (sites.value ?? []).filter((s) => !s.state && !s.archived).length)
  const visible = useDocumentVisibility()
  useIntervalFn(() => {
    if (left.value && visible.value === 'visible') void load()
  }, SOON)
  watch(visible, (now) => now === 'visible' && sites.value && void load())

  /** Does something with sites; where it fails, says what is as it was. */
  async function act(what: Question<unknown>, not: string): Promise<boolean> {
    const told = await ask(what)
    if (told.problem) failure.value = `${told.problem} ${not}`
    else await load()
    return !told.problem
  }

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

  return { sites, failure, load, act, duplicate, importPlan }
}
