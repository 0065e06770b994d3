import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { PlayedChannel } from '../api/types'
import { useSite } from '../site/useSite'

/** An event as the timeline has it. */
export interface Pointed {
  channel: string
  event: number
  start: number
  length?: number // seconds, where it is known
}

/** Fates as the server tells them. */
export const MISSED = 0
export const LOW = 1
export const FULL = 2

export const OTHER = 5 // alarms, buttons, pictures that are lost

/** A line of the timeline: a channel, or what happens beside the channels' own motion. */
export interface Row extends PlayedChannel {
  cause?: string // its name
  group?: string
}
const groupsOfCauses = {
  alarm: 'Alarm inputs',
  button: 'Buttons',
  lost: 'Pictures',
  tampered: 'Pictures',
  uplinkLost: 'Uplink',
}

const pad = (n: number) => String(n).padStart(2, '0')

/** The Monday after today, as a date. */
function nextMonday() {
  const d = new Date()
  d.setDate(d.getDate() + ((8 - d.getDay()) % 7 || 7))
  return `${d.getFullYear()}-${pad(d.getMonth() + 1)}-${pad(d.getDate())}`
}

/** What was played last of each plan: there one goes on who comes back to the page. */
const lastPlayed = new Map<string, { from: string; days: number; number: number }>()

/** The days that are played out: which, by which number, what happened in them, and what is pointed at. */
export function useRehearsal() {
  const site = useSite()
  const route = useRoute()
  const router = useRouter()
  const last = lastPlayed.get(site.planId)
  const from = computed(() => String(route.query.from ?? last?.from ?? nextMonday()))
  const days = computed(() => Number(route.query.days ?? last?.days ?? 7) || 7)
  const number = computed(() => Number(route.query.number ?? last?.number ?? 1) || 1)
  watch(
    [from, days, number],
    () => lastPlayed.set(site.planId, { from: from.value, days: days.value, number: number.value }),
    { immediate: true },
  )
  /** The address names the days and the number, so that two people see the same week. */
  const go = (change: { from?: string; days?: number; number?: number }) =>
    router.replace({
      query: { ...route.query, from: from.value, days: days.value, number: number.value, ...change },
    })
  const another = () => go({ number: number.value + 1 })
  const query = computed(() => ({ from: from.value, days: days.value, number: number.value }))

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
  /** Events that turned out otherwise before, by channel and beginning: whether they are kept now, or lost. */
  const turned = shallowRef(new Map<string, 'kept' | 'lost'>())
  const mark = (events: Map<string, 'kept' | 'lost'>) => (turned.value = events)
  const seconds = computed(() => data.value?.seconds ?? 7 * 86400)

  // What is in view, and what is pointed at.
  const FIRST = 86_400 // how much is looked at first, below all days
  const view = ref({ from: 0, to: FIRST })
  const head = ref(0) // the play head, seconds since the first midnight
  const pointed = shallowRef<Pointed>()
  const words = ref('') // channels are found by
  const fates = ref<'all' | 'missed' | 'low' | 'unwanted' | 'alarms'>('all')
  watch(
    () => [from.value, days.value, number.value],
    () => {
      pointed.value = undefined
    },
  )
  watch(seconds, (s) => {
    const untouched = view.value.from === 0 && view.value.to === FIRST
    const first = (data.value?.days[0]?.hours ?? 24) * 3600
    if (view.value.to > s || untouched) view.value = { from: 0, to: Math.min(s, first) }
    head.value = Math.min(head.value, s)
  })

  const found = (text: string) =>
    words.value
      .toLowerCase()
      .split(/\s+/)
      .every((w) => text.toLowerCase().includes(w))
  /** Channels group by group, as each first comes. */
  const cameras = computed<Row[]>(() => {
    const groups = new Map<string, Row[]>()
    for (const c of data.value?.channels ?? []) {
      const ch = site.channels.get(c.id)
      if (!found(`${ch?.number} ${ch?.name} ${ch?.group ?? ''}`)) continue
      const group = ch?.group ?? ''
      groups.set(group, [...(groups.get(group) ?? []), c])
    }
    return [...groups.values()].flat()
  })
  const causes = computed<Row[]>(() =>
    (data.value?.causes ?? [])
      .filter((c) => found(`${c.name} ${groupsOfCauses[c.kind]}`))
      .map(({ kind, id, name, start, length, event }) => ({
        id: `${kind} ${id}`,
        cause: name,
        group: groupsOfCauses[kind],
        start,
        length,
        event,
        fate: start.map(() => OTHER),
        from: [],
        to: [],
        layer: [],
        walk: [],
        away: [],
      })),
  )
  const rows = computed<Row[]>(() =>
    fates.value === 'alarms'
      ? causes.value
      : fates.value === 'all'
        ? [...cameras.value, ...causes.value]
        : cameras.value,
  )
  const fits = {
    all: () => true,
    missed: (fate: number) => fate === MISSED,
    low: (fate: number) => fate === LOW,
    unwanted: (fate: number) => fate > FULL && fate < OTHER,
    alarms: (fate: number) => fate === OTHER,
  }
  const shows = (fate: number) => fits[fates.value](fate)

  /** Brings a moment into view, at the zoom there is. */
  function show(at: number, wide?: number) {
    const half = (wide ?? view.value.to - view.value.from) / 2
    const middle = Math.max(half, Math.min(seconds.value - half, at))
    view.value = { from: Math.max(0, middle - half), to: Math.min(seconds.value, middle + half) }
  }
  const SHORTEST = 10
  /** Looks closer, by a factor, at a moment that stays where it is. */
  function zoom(by: number, at = (view.value.from + view.value.to) / 2) {
    const now = view.value.to - view.value.from
    const wide = Math.min(seconds.value, Math.max(SHORTEST, now / by))
    const share = (at - view.value.from) / now
    const start = Math.max(0, Math.min(seconds.value - wide, at - share * wide))
    view.value = { from: start, to: start + wide }
  }
  function pan(by: number) {
    const wide = view.value.to - view.value.from
    const start = Math.max(0, Math.min(seconds.value - wide, view.value.from + by))
    view.value = { from: start, to: start + wide }
  }

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
  /** Puts the play head somewhere in the days. */
  function seek(at: number) {
    head.value = Math.max(0, Math.min(seconds.value, at))
  }
  const showAll = () => (view.value = { from: 0, to: seconds.value })
  function point(p: Pointed) {
    pointed.value = p
    head.value = p.start
    if (p.start < view.value.from || p.start > view.value.to) show(p.start)
  }

  return {
    from,
    days,
    number,
    go,
    another,
    query,
    data,
    failure,
    asking,
    seconds,
    view,
    head,
    pointed,
    words,
    fates,
    rows,
    cameras,
    shows,
    show,
    zoom,
    pan,
    next,
    nextHeld,
    point,
    seek,
    stop,
    stopped,
    again,
    turned,
    mark,
    showAll,
  }
}

export type Rehearsing = ReturnType<typeof useRehearsal>
