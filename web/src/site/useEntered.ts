import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from './useSite'

/** The plan as its recorders take it, where one is said not to take all, and whether figures are shown of that. */
export const useEntered = defineStore('entered', () => {
  const site = useSite()
  const isSaid = computed(() => (site.plan?.recorders ?? []).some((r) => r.takes))
  const { data } = useAnswer(
    () => [site.stamp, isSaid.value],
    () => (isSaid.value && site.planId ? api.GET('/api/plans/{id}/entered', { params: site.here }) : undefined),
    { keep: true },
  )
  const differs = computed(() => !!data.value?.differs)
  const wanted = ref(false)
  /** Whether figures are those of the plan as entered. */
  const shown = computed(() => wanted.value && differs.value)
  const verdict = computed(() => (shown.value ? data.value!.verdict : site.verdict))
  const figures = computed(() => new Map((shown.value ? data.value!.figures : []).map((f) => [f.id, f])))
  const figuresOf = (id: string) => figures.value.get(id) ?? site.figures.get(id)

  /** Stretches of each channel in which another duty is entered than planned, with its name. */
  const stretches = computed(() => {
    const names = new Map([...(site.plan?.duties ?? []), ...(data.value?.duties ?? [])].map((d) => [d.id, d.name]))
    const by = new Map<string, { from: number; to: number; name: string }[]>()
    for (const s of data.value?.stretches ?? [])
      by.set(s.channel, [...(by.get(s.channel) ?? []), { from: s.from, to: s.to, name: names.get(s.duty) ?? s.duty }])
    return by
  })

  return { differs, wanted, shown, verdict, figuresOf, stretches }
})
