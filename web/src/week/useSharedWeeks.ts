import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

import { useSite } from '../site/useSite'

export type Choice = 'own' | 'week'

/** A question about channels that follow a named week: paint the week for all, or let them go their own way? */
export interface Question {
  week: string
  name: string
  channels: string[]
  followers: string[]
  answer: (choice: Choice | undefined) => void
}

/** Asks, once for each named week, what painting a channel that follows it means. */
export const useSharedWeeks = defineStore('sharedWeeks', () => {
  const site = useSite()
  const question = shallowRef<Question>()

  /** Sorts channels into those to be painted alone and those whose named week is painted; nothing if given up. */
  async function sort(channels: string[]) {
    const own: string[] = []
    const shared: string[] = []
    const followers: string[] = []
    const byWeek = new Map<string, string[]>()
    for (const id of channels) {
      const week = site.channels.get(id)?.week
      if (typeof week !== 'string') own.push(id)
      else byWeek.set(week, [...(byWeek.get(week) ?? []), id])
    }
    for (const [week, ids] of byWeek) {
      const all = (site.plan?.channels ?? []).filter((c) => c.week === week).map((c) => c.id)
      const choice = await ask(week, ids, all)
      if (!choice) return undefined
      if (choice === 'own') own.push(...ids)
      else {
        shared.push(...ids)
        followers.push(...all)
      }
    }
    return { own, shared, followers }
  }

  async function ask(week: string, channels: string[], followers: string[]): Promise<Choice | undefined> {
    if (channels.length === followers.length && followers.length === 1) return 'own'
    const name = site.plan?.weeks?.find((w) => w.id === week)?.name ?? week
    const choice = await new Promise<Choice | undefined>((answer) => {
      question.value = { week, name, channels, followers, answer }
    })
    question.value = undefined
    return choice
  }

  return { question, sort }
})
