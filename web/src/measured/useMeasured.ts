import { computed, ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { FoundFigure } from '../api/types'
import { useInAddress, useNamed } from '../site/useInAddress'
import { useSite } from '../site/useSite'
import { useGoing } from '../api/going'

/** A figure by what it is of, for the address. */
export const keyOf = (f: FoundFigure) => `${f.kind}.${f.id}.${f.channels[0] ?? ''}`

/** What was found at the site, held against the plan as it stands, and which figure is in hand. */
export function useMeasured() {
  const site = useSite()
  const {
    data: found,
    failure,
    asking,
  } = useAnswer(
    () => [site.stamp, site.handed],
    () => (site.planId ? api.GET('/api/plans/{id}/measured', { params: site.here }) : undefined),
    { keep: true },
  )
  useGoing({ what: 'Holding what was found against the plan' }, () => asking.value)
  const figures = computed(() => found.value?.result?.figures ?? [])
  const differ = computed(() => figures.value.filter((f) => f.moreThanChance))
  const asPlanned = computed(() => figures.value.filter((f) => !f.moreThanChance))
  const about = ref('')
  useInAddress('about', about, true)
  useNamed('something measured', about, () => found.value && figures.value.some((f) => keyOf(f) === about.value))
  const inHand = computed(
    () => figures.value.find((f) => keyOf(f) === about.value) ?? differ.value.find((f) => f.hours?.length),
  )
  const show = (f: FoundFigure) => (about.value = keyOf(f))
  return { found, failure, asking, differ, asPlanned, inHand, show }
}
