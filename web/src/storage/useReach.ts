import { computed, ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'

/** What it would take to keep footage for a number of days, and what may not be touched for it. */
export function useReach() {
  const site = useSite()
  const wanted = ref<number>() // days that were asked for
  const locked = ref<string[]>([])
  const frames = ref(false)
  const quality = ref(false)
  /** Until somebody asks: what is required and not kept, else a quarter more than is kept. */
  const days = computed(() => {
    const v = site.verdict
    if (wanted.value !== undefined) return wanted.value
    if (v?.short && v.requiredDays) return v.requiredDays
    return Math.max(1, Math.round(1.25 * (v?.keptDays ?? 30)))
  })
  const { data, failure, asking } = useAnswer(
    () => [site.stamp, days.value, locked.value.join(), frames.value, quality.value],
    () =>
      api.POST('/api/plans/{id}/reach', {
        params: site.here,
        body: {
          days: days.value,
          locked: locked.value.filter((id) => site.channels.has(id)),
          frames: frames.value || undefined,
          quality: quality.value || undefined,
        },
      }),
    { debounce: 60, keep: true },
  )
  return { wanted, locked, frames, quality, days, data, failure, asking }
}

export type Reaching = ReturnType<typeof useReach>
