import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import type { Edit } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { dayNames, weekdays } from '../../time/week'
import { useHand, type Act } from '../../hand/useHand'

/** What was copied: a channel's whole week, or one day of it. */
export interface Copied {
  channel: string
  day?: number
}

/** Copying days and weeks: what it would change is considered first, by menu, by dragging and by Ctrl+C and Ctrl+V. */
export const useCopy = defineStore('copy', () => {
  const site = useSite()
  const hand = useHand()
  const copied = shallowRef<Copied>()

  const real = (ids: string[]) => ids.filter((id) => site.channels.has(id) && !site.channels.get(id)!.noCamera)
  const name = (id: string) => site.channels.get(id)?.name ?? id
  const names = (ids: string[]) => (ids.length > 3 ? count(ids.length, 'channel') : ids.map(name).join(', '))

  /** A day of some channels onto other days. */
  function day(channels: string[], from: number, to: number[], how: string): Act | undefined {
    const ids = real(channels)
    const days = to.filter((d) => d !== from)
    if (!ids.length || !days.length) return undefined
    const edits: Edit[] = [{ copyDay: { channels: ids, from: weekdays[from]!, to: days.map((d) => weekdays[d]!) } }]
    return {
      title: `${dayNames[from]} onto ${days.map((d) => dayNames[d]!.slice(0, 3)).join(', ')}, on ${names(ids)}`,
      edits,
      how,
    }
  }

  /** The week of a channel onto others. */
  function week(from: string, channels: string[], how: string): Act | undefined {
    const ids = real(channels).filter((id) => id !== from)
    if (!ids.length) return undefined
    return {
      title: `The week of ${name(from)} onto ${names(ids)}`,
      edits: [{ copyWeek: { from, channels: ids } }],
      how,
    }
  }

  function copy(what: Copied) {
    copied.value = what
  }

  /** What Ctrl+V would do to channels and days. */
  function pasting(channels: string[], days: number[]): Act | undefined {
    const c = copied.value
    if (!c || !site.channels.has(c.channel)) return undefined
    if (c.day === undefined) return week(c.channel, channels, 'Ctrl+V does it.')
    const ids = real(channels)
    if (!ids.length || !days.length) return undefined
    const to = days.map((d) => weekdays[d]!)
    return {
      title: `${dayNames[c.day]} of ${name(c.channel)} onto ${days.map((d) => dayNames[d]!.slice(0, 3)).join(', ')}, on ${names(ids)}`,
      edits: [{ copyDay: { channels: ids, from: weekdays[c.day]!, to, of: c.channel } }],
      how: 'Ctrl+V does it.',
    }
  }

  function consider(act: Act | undefined) {
    hand.act = act
  }

  function doIt(act = hand.act) {
    if (act) site.change(act.edits)
    hand.act = undefined
  }

  return { copied, day, week, copy, pasting, consider, doIt }
})
