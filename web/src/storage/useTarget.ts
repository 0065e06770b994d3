import { useIntervalFn } from '@vueuse/core'
import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { flagText, listText, numberText, wordText } from '../site/asText'
import { useInAddress } from '../site/useInAddress'
import { useGoing } from '../api/going'

/** A group in the list of what may not be touched. */
export const ofGroup = (group: string) => `group ${group}`

/** What days are compared with. */
export type Measure = 'typical' | 'hour' | 'date' | 'chance'
export const measures: readonly (readonly [Measure, string])[] = [
  ['typical', 'in an ordinary week'],
  ['hour', 'at its worst hour'],
  ['date', 'on the worst date of the year'],
  ['chance', 'with a chance of'],
]

/** Days as an address has them; such as nobody can ask for are none. */
const daysText = (of: Ref<number | undefined>) =>
  computed<string | undefined>({
    get: () => of.value?.toString(),
    set: (text) => (of.value = Number(text) > 0 && Number(text) <= 36_500 ? Number(text) : undefined),
  })

/** What it would take to keep footage for a number of days, and what may not be touched for it. */
export function useTarget() {
  const site = useSite()
  const wanted = ref<number>() // days that were asked for
  const locked = ref<string[]>([]) // ids of channels, and groups
  const frames = ref(false)
  const quality = ref(false)
  const drives = ref(0) // how many more a pool may be given
  const money = ref<number>() // what they may cost
  const stopped = ref(false)
  const by = ref<Measure>('typical')
  const chance = ref(80) // percent, where it is asked for
  /** The question is in the address: a target, what it is held against, and what may not be touched. */
  useInAddress('days', daysText(wanted))
  useInAddress(
    'by',
    wordText(
      by,
      measures.map(([m]) => m),
      'typical',
    ),
  )
  useInAddress('chance', numberText(chance as Ref<number | undefined>, 80))
  useInAddress('locked', listText(locked))
  useInAddress('frames', flagText(frames))
  useInAddress('pictures', flagText(quality))
  useInAddress('drives', numberText(drives as Ref<number | undefined>, 0))
  useInAddress('money', numberText(money))
  /** Until somebody asks: what is required and not kept, else a tenth more than is kept. */
  const days = computed(() => {
    const v = site.verdict
    if (wanted.value !== undefined) return wanted.value
    if (v?.short && v.requiredDays) return v.requiredDays
    return Math.max(1, Math.ceil(1.1 * (v?.keptDays ?? 30)))
  })
  const lockedChannels = computed(() => {
    const names = new Set(locked.value)
    return (site.plan?.channels ?? [])
      .filter((c) => names.has(c.id) || (c.group && names.has(ofGroup(c.group))))
      .map((c) => c.id)
  })

  let way = new AbortController() // of the question under way; the next one takes its place
  const { data, failure, asking, again } = useAnswer(
    () => [
      site.stamp,
      days.value,
      lockedChannels.value.join(),
      frames.value,
      quality.value,
      drives.value,
      money.value,
      by.value,
      chance.value,
    ],
    () => {
      way.abort()
      way = new AbortController()
      stopped.value = false
      return api.POST('/api/plans/{id}/reach', {
        params: site.here,
        signal: way.signal,
        body: {
          days: days.value,
          by: by.value === 'typical' ? undefined : by.value,
          chancePercent: by.value === 'chance' ? chance.value : undefined,
          locked: lockedChannels.value,
          frames: frames.value || undefined,
          quality: quality.value || undefined,
          moreDrives: drives.value || undefined,
          money: drives.value ? money.value : undefined,
        },
      })
    },
    { debounce: 60, keep: true },
  )

  /** How far a long question has got, in percent. */
  const progress = ref<number>()
  const { pause, resume } = useIntervalFn(
    async () => {
      const told = await ask(api.GET('/api/plans/{id}/reach/progress', { params: site.here }))
      progress.value = told.data?.all ? (100 * told.data.done) / told.data.all : undefined
    },
    400,
    { immediate: false },
  )
  watch(asking, (on) => {
    progress.value = undefined
    if (on) resume()
    else pause()
  })
  function stop() {
    stopped.value = true
    way.abort()
  }
  onScopeDispose(() => way.abort())
  useGoing({ what: 'Trying what it would take', percent: () => progress.value, stop }, () => asking.value)

  /** What was asked stays asked, also when what is found is done. */
  const hold = () => (wanted.value = days.value)

  return {
    ...{ wanted, by, chance, locked, frames, quality, drives, money, days, hold },
    ...{ data, failure, asking, again, progress, stop, stopped },
  }
}

export type Target = ReturnType<typeof useTarget>
