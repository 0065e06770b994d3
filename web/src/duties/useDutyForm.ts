import { computed, ref } from 'vue'

import type { Duty, StreamName } from '../api/types'
import type { Settings } from './settings'

export const amounts = [
  ['whole', 'every frame'],
  ['keyframes', 'keyframes only'],
  ['fewer', 'fewer frames'],
] as const
export const causes = [
  ['none', 'no event'],
  ['motion', 'motion'],
  ['alarm', 'an alarm'],
  ['any', 'motion or an alarm'],
  ['all', 'motion and an alarm at once'],
] as const

/** A duty as the fields of a form, which are simpler than what they come to. */
export function useDutyForm() {
  const name = ref('')
  const base = ref<'none' | StreamName>('main')
  const amount = ref<(typeof amounts)[number][0]>('whole')
  const fps = ref(5)
  const cause = ref<(typeof causes)[number][0]>('motion')
  const eventStream = ref<StreamName>('main')
  const fewer = ref(false) // whether the event layer keeps fewer frames
  const eventFPS = ref(10)
  const baseSettings = ref<Settings>({})
  const eventSettings = ref<Settings>({})

  function causeOf(d: Duty | undefined) {
    if (!d) return 'motion'
    if (!d.event) return 'none'
    return d.event.on.length === 2 ? (d.event.match ?? 'any') : d.event.on[0]!
  }

  /** Fills the fields from a duty, or from nothing. */
  function take(d: Duty | undefined) {
    name.value = d?.name ?? ''
    base.value = d ? (d.base?.stream ?? 'none') : 'sub'
    amount.value = d?.base?.keyframesOnly ? 'keyframes' : d?.base?.fps ? 'fewer' : 'whole'
    fps.value = d?.base?.fps ?? 5
    cause.value = causeOf(d)
    eventStream.value = d?.event?.stream ?? 'main'
    fewer.value = !!d?.event?.fps
    eventFPS.value = d?.event?.fps ?? 10
    baseSettings.value = { quality: d?.base?.quality, percent: d?.base?.percent }
    eventSettings.value = { quality: d?.event?.quality, percent: d?.event?.percent }
  }

  const both = computed(() => cause.value === 'any' || cause.value === 'all')
  const on = computed<NonNullable<Duty['event']>['on']>(() =>
    both.value ? ['motion', 'alarm'] : cause.value === 'alarm' ? ['alarm'] : ['motion'],
  )
  const layers = computed<Pick<Duty, 'base' | 'event'>>(() => ({
    ...(base.value !== 'none' && {
      base: {
        stream: base.value,
        ...(amount.value === 'keyframes' && { keyframesOnly: true }),
        ...(amount.value === 'fewer' && { fps: fps.value }),
        ...baseSettings.value,
      },
    }),
    ...(cause.value !== 'none' && {
      event: {
        stream: eventStream.value,
        on: on.value,
        ...(both.value && { match: cause.value as 'any' | 'all' }),
        ...(fewer.value && { fps: eventFPS.value }),
        ...eventSettings.value,
      },
    }),
  }))
  return {
    ...{ name, base, amount, fps, baseSettings, cause, eventStream, fewer, eventFPS, eventSettings },
    ...{ layers, take },
  }
}
