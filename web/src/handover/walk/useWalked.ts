import { computed, ref } from 'vue'

import { newKey } from '../../api/again'
import { ask, useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { WalkRecord } from '../../api/types'
import { useInAddress, useNamed } from '../../site/useInAddress'
import { useSite } from '../../site/useSite'
import { notice } from '../../ui/notice'

/** A decision, or that something does not count. */
type Said = Pick<WalkRecord, 'decision' | 'aside'>

/** What was seen on site, live, and which camera or trial is in hand: that stands in the address. */
export function useWalked() {
  const site = useSite()
  const { data: report, failure } = useAnswer(
    () => [site.stamp, site.handed],
    () => (site.planId ? api.GET('/api/plans/{id}/walked', { params: site.here }) : undefined),
    { keep: true },
  )
  const about = ref('')
  useInAddress('about', about, true)
  useNamed('a camera or a trial', about, () => report.value && !!(camera.value ?? trial.value))
  const show = (id: string) => (about.value = id)
  const camera = computed(() => report.value?.cameras.find((c) => c.channel === about.value))
  const trial = computed(() => report.value?.trials.find((t) => t.id === about.value))

  /** Keeps a decision that is made at the desk. */
  async function decide(id: string, said: Said): Promise<boolean> {
    const record = { id: newKey(), about: id, revision: site.version, clock: 'phone' as const, ageSeconds: 0, ...said }
    const told = await ask(
      api.POST('/api/plans/{id}/walked', { params: { ...site.here, header: {} }, body: { records: [record] } }),
    )
    if (!told.data) notice(`Not kept. ${told.problem}`, { error: true, seconds: 8 })
    return !!told.data
  }
  return { report, failure, about, show, camera, trial, decide }
}

/** What statuses are called. */
export const statuses: Record<string, string> = {
  open: 'not walked',
  begun: 'begun',
  right: 'as planned',
  differs: 'differs',
  again: 'walk again',
  left: 'left so',
  none: 'nothing to walk',
}
