import { computed, reactive } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Finding, FixEffect } from '../api/types'
import { useSite } from '../site/useSite'
import { useGoing } from '../api/going'

const TOGETHER = 60 // fixes that the server tries for one question

/** What fixes would do, tried for every revision before they are offered. */
export interface Tried {
  of: (finding: Finding, choice?: number) => FixEffect | undefined
  failure: string
  again: () => void
}

/** Tries the fixes of findings. */
export function useEffects(findings: () => Finding[]): Tried {
  const site = useSite()
  const ids = computed(() =>
    findings()
      .filter((f) => f.fix && !f.accepted)
      .map((f) => f.id),
  )
  async function attempt(all: string[]) {
    const data: FixEffect[] = []
    for (let from = 0; ; from += TOGETHER) {
      const query = { finding: all.slice(from, from + TOGETHER) }
      const part = await api.GET('/api/plans/{id}/fixes', { params: { ...site.here, query } })
      if (!part.data) return part
      data.push(...part.data)
      if (from + TOGETHER >= all.length) return { data, response: part.response }
    }
  }
  const { data, failure, asking, again } = useAnswer(
    () => [site.stamp, ids.value.join('\n')],
    () => (ids.value.length ? attempt(ids.value) : undefined),
    { fresh: true },
  )
  useGoing({ what: 'Trying ways to mend' }, () => asking.value)
  const effects = computed(() => new Map((data.value ?? []).map((e) => [`${e.choice ?? 0} ${e.id}`, e])))
  const of = (f: Finding, choice = 0) => effects.value.get(`${choice} ${f.id}`)
  return reactive({ of, failure, again })
}
