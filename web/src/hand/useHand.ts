import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'

import type { Draft, Edit } from '../api/types'
import { useSite } from '../site/useSite'
import { hoursOf, spansOf, type DragMeans } from '../time/echo'
import { DAY, WEEK, type Span } from '../time/week'

/** A stroke that is being made: its time and the channels it would paint. */
export interface Stroke {
  span: Span
  channels: string[]
  duty?: string // instead of the one in hand: an edge that is dragged takes its neighbour's
}

export interface Pointer {
  channel: string
  minute: number
}

/** A change that is considered: what it is called and what it would do. */
export interface Act {
  title: string
  edits: Edit[]
  how: string // how it is done or left
}

/** The least that can be shown, in minutes. */
const CLOSEST = 20

/** What the planner holds: the duty to paint with, the channels selected, the stroke being made, the time in view. */
export const useHand = defineStore('hand', () => {
  const site = useSite()
  const picked = ref('')
  const selected = ref<string[]>([])
  const means = ref<DragMeans>('each day')
  const stroke = ref<Stroke>()
  const pointer = ref<Pointer>()
  const act = shallowRef<Act>()
  /** What the stroke or the act would change, as it was answered last, and the edits it was asked for. */
  const draft = shallowRef<Draft>()
  const draftOf = ref('')
  const panel = ref<'channel' | 'hours' | 'events' | 'disk'>('channel')
  const brush = ref<Span>() // time selected on the tide
  const ink = useStorage<'rate' | 'disk'>('wakefield-ink', 'rate')
  let anchor = ''

  const view = ref<Span>({ from: 0, to: WEEK })
  const isWhole = computed(() => view.value.from === 0 && view.value.to === WEEK)
  /** The day that is looked at closely, where it is exactly one. */
  const day = computed<number | undefined>({
    get: () =>
      view.value.to - view.value.from === DAY && view.value.from % DAY === 0 ? view.value.from / DAY : undefined,
    set: (d) => (view.value = d === undefined ? { from: 0, to: WEEK } : { from: d * DAY, to: (d + 1) * DAY }),
  })

  /** Shows a stretch of the week, whole minutes, not closer than can be seen. */
  function look(from: number, to: number) {
    const length = Math.round(Math.max(CLOSEST, Math.min(WEEK, to - from)))
    const start = Math.round(Math.max(0, Math.min(WEEK - length, from)))
    view.value = { from: start, to: start + length }
  }

  /** Comes closer, or goes back, around a moment. */
  function zoom(factor: number, around: number) {
    const { from, to } = view.value
    look(around - (around - from) * factor, around + (to - around) * factor)
  }

  function pan(share: number) {
    const { from, to } = view.value
    look(from + share * (to - from), to + share * (to - from))
  }

  const duty = computed(() => (site.duties.has(picked.value) ? picked.value : (site.plan?.duties[0]?.id ?? '')))
  const selection = computed(() => selected.value.filter((id) => site.channels.has(id)))
  const hours = computed(() =>
    stroke.value ? hoursOf(stroke.value.span, stroke.value.duty ? 'right through' : means.value) : [],
  )
  const spans = computed(() => spansOf(hours.value))

  /** Selects a channel: alone, with those between it and the last one, or beside the others. */
  function select(id: string, how: 'alone' | 'through' | 'beside', order: string[]) {
    if (how === 'through' && anchor) {
      const [a, b] = [order.indexOf(anchor), order.indexOf(id)].sort((x, y) => x - y)
      selected.value = order.slice(a, b! + 1)
      return
    }
    anchor = id
    if (how === 'beside') {
      selected.value = selected.value.includes(id) ? selected.value.filter((x) => x !== id) : [...selected.value, id]
    } else {
      selected.value = selected.value.length === 1 && selected.value[0] === id ? [] : [id]
    }
  }

  /** Selects channels and shows what is decided about them. */
  function show(ids: string[]) {
    selected.value = [...ids]
    anchor = ids[0] ?? ''
    panel.value = 'channel'
  }

  return {
    picked,
    duty,
    selected,
    selection,
    means,
    stroke,
    hours,
    spans,
    pointer,
    act,
    draft,
    draftOf,
    panel,
    brush,
    ink,
    day,
    view,
    isWhole,
    look,
    zoom,
    pan,
    select,
    show,
  }
})
