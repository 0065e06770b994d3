import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import { DAY, hoursOf, spansOf, WEEK, type Reach, type Span } from './time'

/** A stroke that is being made: its time and the channels it would paint. */
export interface Stroke {
  span: Span
  channels: string[]
}

export interface Pointer {
  channel: string
  minute: number
}

/** What the planner holds: the duty to paint with, the channels selected, the stroke being made. */
export const useHand = defineStore('hand', () => {
  const site = useSite()
  const picked = ref('')
  const selected = ref<string[]>([])
  const reach = ref<Reach>('each day')
  const stroke = ref<Stroke>()
  const pointer = ref<Pointer>()
  const panel = ref<'channel' | 'events' | 'disk'>('channel')
  /** The day that is looked at closely, if it is not the whole week. */
  const day = ref<number>()
  const view = computed<Span>(() => (day.value === undefined ? { from: 0, to: WEEK } : { from: day.value * DAY, to: (day.value + 1) * DAY }))
  let anchor = ''

  const duty = computed(() => (site.duties.has(picked.value) ? picked.value : (site.plan?.duties[0]?.id ?? '')))
  const selection = computed(() => selected.value.filter((id) => site.channels.has(id)))
  const hours = computed(() => (stroke.value ? hoursOf(stroke.value.span, reach.value) : []))
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

  return { picked, duty, selected, selection, reach, stroke, hours, spans, pointer, panel, day, view, select, show }
})
