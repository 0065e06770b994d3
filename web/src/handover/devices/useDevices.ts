import { computed, ref } from 'vue'

import { ask, useAnswer, type Question } from '../../api/ask'
import { api } from '../../api/client'
import type { DeviceAt } from '../../api/types'
import { useInAddress, useNamed } from '../../site/useInAddress'
import { useSite } from '../../site/useSite'
import { useSiteDevices } from '../../site/useSiteDevices'
import { notice } from '../../ui/notice'

/** The devices of a site, live, and which of them is in hand: that stands in the address. */
export function useDevices() {
  const site = useSite()
  const { all, list, failure, again, nameOf } = useSiteDevices()
  const named = ref('')
  useInAddress('device', named, true)
  useNamed('a device', named, () => all.value && list.value.some((d) => d.id === named.value))
  const inHand = computed(() => list.value.find((d) => d.id === named.value) ?? list.value[0])
  const show = (id: string) => (named.value = id)

  /** What a device has, held against the plan as it stands. */
  const {
    data: held,
    failure: unheld,
    again: holdAgain,
  } = useAnswer(
    () => [site.stamp, inHand.value?.id, inHand.value?.readAt],
    () => {
      const d = inHand.value
      return d?.readAt
        ? api.GET('/api/plans/{id}/devices/{device}/held', { params: { path: { ...site.here.path, device: d.id } } })
        : undefined
    },
    { keep: true },
  )

  /** Asks the server to do something with a device, and says why where it does not. */
  async function begin<T>(question: Question<T>): Promise<T | undefined> {
    const told = await ask(question)
    if (told.problem) notice(told.problem, { error: true, seconds: 10 })
    await again()
    return told.data
  }
  const at = (d: Pick<DeviceAt, 'id'>) => ({ path: { ...site.here.path, device: d.id }, header: {} })
  const read = (d: Pick<DeviceAt, 'id'>) => begin(api.POST('/api/plans/{id}/devices/{device}/read', { params: at(d) }))
  const stop = (d: DeviceAt) => begin(api.POST('/api/plans/{id}/devices/{device}/stop', { params: at(d) }))
  const remove = (d: DeviceAt) => begin(api.DELETE('/api/plans/{id}/devices/{device}', { params: at(d) }))
  /** Whether whoever looks may speak with devices. */
  const may = computed(() => site.role === 'planner' || site.role === 'fitter')
  return {
    all,
    list,
    failure,
    again,
    nameOf,
    inHand,
    show,
    held,
    unheld,
    holdAgain,
    begin,
    at,
    read,
    stop,
    remove,
    may,
  }
}
