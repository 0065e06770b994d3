import { computed } from 'vue'

import { again, newKey } from '../api/again'
import { ask } from '../api/ask'
import { api, fileBody } from '../api/client'
import type { Edit, Variant } from '../api/types'
import { notice } from '../ui/notice'
import { useSite } from './useSite'
import { useTurning } from './useTurning'

/** The variants of the site in hand: which there are, which is open, and what can be done with them. */
export function useVariants() {
  const site = useSite()
  const { show } = useTurning()
  const here = computed(() => site.variants.filter((v) => !v.removed))
  const away = computed(() => site.variants.filter((v) => v.removed))
  const name = (id: string) => site.variants.find((v) => v.id === id)?.name || 'without a name'

  /** A name that no variant has. */
  function freeName(wish: string) {
    const taken = new Set(site.variants.map((v) => v.name))
    for (let n = 1; ; n++) {
      const tried = n === 1 ? wish : `${wish} ${n}`
      if (!taken.has(tried)) return tried
    }
  }

  /** Makes a variant like the one that is open, with changes or without, and opens it. */
  async function make(wish: string, edits?: Edit[]): Promise<boolean> {
    const params = { path: { id: site.id }, header: { 'Idempotency-Key': newKey() } }
    const body = { like: site.planId, version: site.version, name: freeName(wish.trim()), edits }
    const told = await ask(again(() => api.POST('/api/sites/{id}/plans', { params, body })))
    if (!told.data) {
      notice(`${told.problem} No variant was made.`, { error: true, seconds: 8 })
      return false
    }
    await site.lookForVariants()
    await show(told.data.id)
    notice(`${body.name} was made, and is open. The adopted variant is as it was.`, { seconds: 5 })
    return true
  }

  async function importFile(file: File) {
    const params = { path: { id: site.id }, header: { 'Idempotency-Key': newKey() } }
    const told = await ask(again(() => api.POST('/api/sites/{id}/plans/file', { params, ...fileBody(file) })))
    if (!told.data) {
      notice(`${told.status ? `${file.name}: ` : ''}${told.problem} No variant was made.`, { error: true, seconds: 8 })
      return
    }
    await site.lookForVariants()
    await show(told.data.id)
  }

  /** Makes a variant the one that is carried out; that can be taken back. */
  async function adopt(id: string, back = true) {
    const before = site.adopted
    const told = await ask(
      api.PUT('/api/sites/{id}/adopted', { params: { path: { id: site.id } }, body: { plan: id } }),
    )
    await site.lookForVariants()
    if (told.problem) notice(`${told.problem} ${name(site.adopted)} is adopted as before.`, { error: true, seconds: 8 })
    else
      notice(`${name(id)} is the adopted variant now.`, {
        seconds: 8,
        act: back ? { label: 'Undo', run: () => void adopt(before, false) } : undefined,
      })
  }

  /** Takes a variant away, or out again. */
  async function remove(v: Variant, removed: boolean) {
    const params = { path: { id: site.id, plan: v.id } }
    const told = await ask(api.POST('/api/sites/{id}/plans/{plan}/removed', { params, body: { removed } }))
    await site.lookForVariants()
    if (told.problem) {
      notice(told.problem, { error: true, seconds: 8 })
      return
    }
    if (removed && v.id === site.planId) await show(site.adopted)
    notice(removed ? `${v.name} was removed.` : `${v.name} is there again.`, {
      seconds: 6,
      act: removed ? { label: 'Undo', run: () => void remove(v, false) } : undefined,
    })
  }

  const rename = (to: string) => to.trim() && site.change([{ setSite: { plan: to.trim() } }])

  return { here, away, name, show, make, importFile, adopt, remove, rename, freeName }
}
