import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { cameraRows, causeRows, fits, type Fates, type Pointed, type Row } from './rows'
import { useDays } from './useDays'
import { momentText, pointedText, viewText } from './seen'
import { useView } from './useView'
import { wordText } from '../site/asText'
import { useInAddress } from '../site/useInAddress'
import { useGoing } from '../api/going'

/** The days that are played out: what happened in them, what of it is looked at, and what is pointed at. */
export function useRehearsal() {
  const site = useSite()
  const dated = useDays()
  const { from, days, number, query } = dated

  let way = new AbortController() // of the play under way
  const stopped = ref(false)
  const { data, failure, asking, again } = useAnswer(
    () => [site.stamp, from.value, days.value, number.value],
    () => {
      way.abort()
      way = new AbortController()
      stopped.value = false
      return api.GET('/api/plans/{id}/rehearse', {
        params: { ...site.here, query: query.value },
        signal: way.signal,
      })
    },
    { keep: true, debounce: 60 },
  )
  /** Gives up playing; what was played before stays. */
  function stop() {
    stopped.value = true
    way.abort()
  }
  onScopeDispose(() => way.abort())
  useGoing({ what: 'Playing the days', stop }, () => asking.value)
  /** Events that turned out otherwise before, by channel and beginning: whether they are kept now, or lost. */
  const turned = shallowRef(new Map<string, 'kept' | 'lost'>())
  const mark = (events: Map<string, 'kept' | 'lost'>) => (turned.value = events)
  const seconds = computed(() => data.value?.seconds ?? 7 * 86400)

  const viewed = useView(seconds, () => (data.value?.days[0]?.hours ?? 24) * 3600)
  const { view, head, show } = viewed

  const pointed = shallowRef<Pointed>()
  const words = ref('') // channels are found by
  const fates = ref<Fates>('all')
  watch(
    () => [from.value, days.value, number.value],
    () => {
      pointed.value = undefined
    },
  )

  useInAddress('show', wordText(fates, Object.keys(fits) as Fates[], 'all'))
  useInAddress('find', words as Ref<string | undefined>)
  useInAddress('view', viewText(view))
  useInAddress('moment', momentText(head))
  useInAddress('event', pointedText(pointed, point), true)

  const cameras = computed(() => cameraRows(data.value?.channels ?? [], site.channels, words.value))
  const causes = computed(() => causeRows(data.value?.causes ?? [], words.value))
  const rows = computed<Row[]>(() =>
    fates.value === 'alarms'
      ? causes.value
      : fates.value === 'all'
        ? [...cameras.value, ...causes.value]
        : cameras.value,
  )
  const shows = (fate: number) => fits[fates.value](fate)

  /** Finds the next event after the one that is pointed at, or after the beginning, of those that fit. */
  function next(fits: (fate: number, channel: string) => boolean) {
    const after = pointed.value?.start ?? -1
    let best: Pointed | undefined
    for (const c of rows.value) {
      c.start.forEach((start, k) => {
        if (start <= after || (best && start >= best.start) || !fits(c.fate[k]!, c.id)) return
        best = { channel: c.cause ? '' : c.id, event: c.event[k]!, start, length: c.length[k]! }
      })
    }
    if (!best && after >= 0) {
      pointed.value = undefined
      return next(fits)
    }
    if (best) point(best)
    return !!best
  }
  /** Finds the next message that was held back. */
  function nextHeld() {
    const after = pointed.value?.start ?? -1
    const all = (data.value?.messages ?? [])
      .flatMap((m) => m.held.map((at, k) => ({ at, event: m.heldEvent[k]! })))
      .sort((a, b) => a.at - b.at)
    const found = all.find((h) => h.at > after) ?? all[0]
    if (found) point({ channel: '', event: found.event, start: found.at })
    return !!found
  }
  function point(p: Pointed) {
    pointed.value = p
    head.value = p.start
    if (p.start < view.value.from || p.start > view.value.to) show(p.start)
  }

  const playing = { data, failure, asking, again, seconds, stop, stopped }
  const looked = { pointed, point, next, nextHeld, words, fates, rows, cameras, shows, turned, mark }
  return { ...dated, ...playing, ...viewed, ...looked }
}

export type Rehearsing = ReturnType<typeof useRehearsal>
