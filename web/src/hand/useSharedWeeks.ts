import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import type { Edit } from '../api/types'
import { useSite } from '../site/useSite'

/** Only these, which stop following; only these, in a new named week; or the named week, for all that follow it. */
export type Choice = 'own' | 'new' | 'week'

/** Channels of a stroke that follow one named week. */
export interface Following {
  week: string
  name: string
  channels: string[]
  followers: string[]
}

/** Channels painted alone, those whose named week is painted with all that follow it, and edits that come first. */
export interface Sorted {
  own: string[]
  shared: string[]
  followers: string[]
  first: Edit[]
}

/** A question about channels that follow named weeks: paint these, a new week, or let them go their own way? */
export interface Question {
  weeks: Following[]
  answer: (choice: Choice | undefined) => void
}

/** Asks, once for a stroke, what painting channels that follow named weeks means. */
export const useSharedWeeks = defineStore('sharedWeeks', () => {
  const site = useSite()
  const question = shallowRef<Question>()

  /** What a new week like one that is there is called. */
  function newName(w: Following) {
    const taken = new Set(site.plan?.weeks?.map((n) => n.name))
    let n = 2
    while (taken.has(`${w.name} ${n}`)) n++
    return `${w.name} ${n}`
  }

  /** Sorts channels: at once where nobody has to be asked. Nothing if given up. */
  function sort(channels: string[]): Sorted | Promise<Sorted | undefined> {
    const own: string[] = []
    const weeks = new Map<string, Following>()
    for (const id of channels) {
      const week = site.channels.get(id)?.week
      if (typeof week !== 'string') {
        own.push(id)
        continue
      }
      const followers = (site.plan?.channels ?? []).filter((c) => c.week === week).map((c) => c.id)
      if (followers.length === 1)
        own.push(id) // nobody else follows it
      else {
        const name = site.plan?.weeks?.find((w) => w.id === week)?.name ?? week
        const known = weeks.get(week) ?? { week, name, channels: [], followers }
        weeks.set(week, { ...known, channels: [...known.channels, id] })
      }
    }
    const asked = [...weeks.values()]
    return asked.length ? decide(own, asked) : { own, shared: [], followers: [], first: [] }
  }

  /** Asks what is meant of those that follow. */
  async function decide(own: string[], asked: Following[]): Promise<Sorted | undefined> {
    const choice = await new Promise<Choice | undefined>((answer) => (question.value = { weeks: asked, answer }))
    question.value = undefined
    if (!choice) return undefined
    const all = asked.flatMap((w) => w.channels)
    if (choice === 'own') return { own: [...own, ...all], shared: [], followers: [], first: [] }
    if (choice === 'week') return { own, shared: all, followers: asked.flatMap((w) => w.followers), first: [] }
    const first: Edit[] = []
    for (const w of asked) {
      const name = newName(w)
      const [id] = (await site.freeIds('week', name)) ?? []
      if (!id) return undefined
      const [from, ...channels] = w.channels
      first.push({ keepWeek: { from: from!, id, name, channels } })
    }
    return { own, shared: all, followers: all, first }
  }

  return { question, sort, newName }
})
