import { computed, ref, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { PoolFigures, YearPool } from '../api/types'
import { useSite } from '../site/useSite'
import { dayAndMonth } from '../time/dates'
import { count, three } from '../ui/figures'

export interface PoolMark {
  kind: 'required' | 'permitted' | 'worst' | 'year' | 'failed'
  days: number
  name: string
}

/** What the days of a pool are compared with, each with its mark. */
export function usePoolMarks(pool: () => PoolFigures, year: () => YearPool | undefined) {
  const site = useSite()
  const { data: scenarios } = useAnswer(
    () => [site.stamp, pool().id],
    () => api.GET('/api/plans/{id}/pools/{pool}/whatif', { params: { path: { id: site.planId, pool: pool().id } } }),
    { keep: true, debounce: 80 },
  )
  const channels = computed(() => (site.plan?.channels ?? []).filter((c) => c.pool === pool().id && !c.noCamera))
  const each = (of: (id: string) => number | null | undefined) =>
    [...new Set(channels.value.flatMap((c) => of(c.id) ?? []))].sort((a, b) => a - b)

  // What a plan was like before a change says nothing of the days after it: it is told again when it is known.
  const answered = ref('')
  watch(scenarios, () => (answered.value = site.stamp))
  const failed = computed(() =>
    answered.value === site.stamp ? scenarios.value?.find((s) => s.id === 'failed') : undefined,
  )
  const marks = computed(() => {
    const p = pool()
    const out: PoolMark[] = []
    const add = (kind: PoolMark['kind'], days: number, name: string) => out.push({ kind, days, name })
    for (const d of each((id) => site.figures.get(id)?.requiredDays)) add('required', d, `${count(d, 'day')} required`)
    for (const d of each((id) => site.channels.get(id)?.keep?.atMostDays))
      add('permitted', d, `${count(d, 'day')} permitted`)
    if (p.worstDays != null) add('worst', p.worstDays, `${three(p.worstDays)} at the worst hour`)
    const worst = year()
    if (worst?.worstDays != null && worst.worstDate)
      add('year', worst.worstDays, `${three(worst.worstDays)} on ${dayAndMonth(worst.worstDate)}`)
    const f = failed.value
    if (f?.poolDays != null && f.lostPercent < 100 && f.poolDays < (p.retentionDays ?? Infinity) - 0.05)
      add('failed', f.poolDays, `${three(f.poolDays)} after a failed drive`)
    return out
  })
  return { marks, failed }
}
