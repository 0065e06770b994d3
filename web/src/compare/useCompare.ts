import { computed, ref, watch } from 'vue'

import { again, newKey } from '../api/again'
import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Compared, Sentence } from '../api/types'
import { useSite } from '../site/useSite'
import { notice } from '../ui/notice'
import { joined, parted } from '../site/asText'
import { useInAddress } from '../site/useInAddress'
import { useGoing } from '../api/going'

export const MOST = 4

/** Which variants stand side by side, and what differs between them and the first. */
export function useCompare() {
  const site = useSite()
  void site.lookForVariants() // others may have made some
  const picked = ref<string[]>() // until somebody picks: the adopted one, the open one, and others
  useInAddress(
    'with',
    computed({
      get: () => picked.value && joined(picked.value),
      set: (text) => (picked.value = text ? parted(text) : undefined),
    }),
    true,
  )
  const here = computed(() => site.variants.filter((v) => !v.removed))
  const chosen = computed(() => {
    const known = new Set(here.value.map((v) => v.id))
    const wish = picked.value ?? [site.adopted, site.planId, ...here.value.map((v) => v.id)]
    return [...new Set(wish)].filter((id) => known.has(id)).slice(0, MOST)
  })
  const {
    data,
    failure,
    asking,
    again: refresh,
  } = useAnswer(
    () => [chosen.value.join(), site.stamp],
    () =>
      chosen.value.length
        ? api.GET('/api/sites/{id}/compare', {
            params: { path: { id: site.id }, query: { plans: chosen.value.join() } },
          })
        : undefined,
    { keep: true },
  )
  useGoing({ what: 'Comparing variants' }, () => asking.value)
  const list = computed(() => data.value ?? [])
  const first = computed<Compared | undefined>(() => list.value[0])
  const other = ref('') // which of the others is looked at closely
  useInAddress('beside', other)
  const second = computed(() => list.value.find((c) => c.id === other.value) ?? list.value[1])
  watch(chosen, (ids) => ids.includes(other.value) || (other.value = ''))

  /** Shows a variant beside the others, or no longer. */
  function toggle(id: string) {
    const now = chosen.value
    picked.value = now.includes(id) ? now.filter((x) => x !== id) : [...now, id].slice(0, MOST)
  }
  /** Compares the others with this one. */
  const lead = (id: string) => (picked.value = [id, ...chosen.value.filter((x) => x !== id)])

  /** Carries a difference over from one variant to another. */
  async function carry(sentence: Sentence, from: Compared, to: Compared) {
    const params = { path: { id: to.id }, header: { 'Idempotency-Key': newKey() } }
    const body = { from: from.id, parts: sentence.parts ?? [] }
    const told = await ask(again(() => api.POST('/api/plans/{id}/carry', { params, body })))
    if (!told.data) {
      notice(`${told.problem} ${to.name} is as it was.`, { error: true, seconds: 8 })
      return
    }
    if (to.id === site.planId) await site.reload()
    await refresh()
    const { version } = told.data
    notice(`Carried over into ${to.name}.`, { seconds: 8, act: { label: 'Undo', run: () => void undo(to, version) } })
  }

  /** Takes back the change that made a version of a variant, whether it is open or not; not what came after it. */
  async function undo(of: Compared, version: number) {
    const params = { path: { id: of.id }, header: { 'Idempotency-Key': newKey() } }
    const told = await ask(again(() => api.POST('/api/plans/{id}/undo', { params, body: { version } })))
    if (told.problem) notice(told.problem, { error: true, seconds: 8 })
    if (of.id === site.planId) await site.reload()
    await refresh()
  }

  return { here, chosen, list, first, second, other, failure, asking, toggle, lead, carry }
}
