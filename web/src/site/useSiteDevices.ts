import { useIntervalFn } from '@vueuse/core'
import { computed, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { DeviceAt } from '../api/types'
import { useSite } from './useSite'

/** The recorders and cameras of a site that are spoken with, live; while something is done with one, every second. */
export function useSiteDevices() {
  const site = useSite()
  const {
    data: all,
    failure,
    again,
  } = useAnswer(
    () => [site.planId, site.handed],
    () => (site.planId ? api.GET('/api/plans/{id}/devices', { params: site.here }) : undefined),
    { keep: true },
  )
  const list = computed(() => all.value?.devices ?? [])
  const running = computed(() => list.value.some((d) => d.work?.running))
  const poll = useIntervalFn(() => void again(), 1000, { immediate: false })
  watch(running, (on) => (on ? poll.resume() : poll.pause()), { immediate: true })

  /** What a device is called in the plan; by its address where the plan has it no longer. */
  const nameOf = (d: DeviceAt) =>
    (d.recorder
      ? site.plan?.recorders.find((r) => r.id === d.recorder)?.name
      : site.plan?.channels.find((c) => c.id === d.channel)?.name) ?? d.address
  return { all, list, failure, again, nameOf }
}
