import { until } from '@vueuse/core'
import type { Ref } from 'vue'

import { again, newKey } from '../api/again'
import { ask } from '../api/ask'
import { api } from '../api/client'
import type { Answer, Meeting } from '../api/types'
import { notice } from '../ui/notice'
import type { Sending } from './useSending'
import type { Shown } from './useShown'

/** What became of taking a change back: others may have changed the same since, or nothing of it be left. */
export type Back =
  | { now: 'done'; answer: Answer }
  | { now: 'meets'; meets: Meeting[] }
  | { now: 'nothing' }
  | { now: 'stale' }
  | { now: 'failed'; why: string }

interface Kit {
  shown: Shown
  sending: Pick<Sending, 'queue' | 'on'>
  reader: { take: (answer: Answer) => void; reload: () => Promise<void> }
  mine: Ref<Record<string, number[]>>
  ofPlan: () => number[] // revisions of the plan that were made here
  back: Set<number> // revisions that took one back
}

/** Takes a single change back, once what is on its way has arrived. */
export async function takeBack(kit: Kit, number: number, anyway = false): Promise<Back> {
  const { queue, on } = kit.sending
  await until(queue.state).not.toBe('saving')
  if (queue.waiting.value.length) return { now: 'failed', why: 'Changes wait to be saved first.' }
  const params = { path: { id: kit.shown.planId.value, number }, header: { 'Idempotency-Key': newKey() } }
  const body = { ...on(), anyway }
  const told = await ask(again(() => api.POST('/api/plans/{id}/revisions/{number}/take-back', { params, body })))
  if (told.data) {
    kit.reader.take(told.data)
    kit.back.add(told.data.made)
    kit.mine.value = { ...kit.mine.value, [kit.shown.planId.value]: kit.ofPlan().filter((n) => n !== number) }
    notice(`${told.data.sentence}. What else was changed since stays.`, { seconds: 4 })
    return { now: 'done', answer: told.data }
  }
  if (told.error?.type === 'wakefield:meets')
    return { now: 'meets', meets: (told.error as unknown as { meets: Meeting[] }).meets }
  if (told.error?.type === 'wakefield:nothing') return { now: 'nothing' }
  if (told.status !== 409) return { now: 'failed', why: told.problem }
  await kit.reader.reload()
  return { now: 'stale' }
}

/** Takes back the newest change made here of which something is left. Tells whether there was one. */
export async function takeOwnBack(kit: Kit): Promise<boolean> {
  const own = kit
    .ofPlan()
    .filter((n) => !kit.back.has(n) && n < kit.shown.version.value)
    .sort((a, b) => b - a)
  for (const number of own.slice(0, 20)) {
    const back = await takeBack(kit, number)
    if (back.now === 'nothing') continue
    if (back.now === 'meets')
      notice(`Your last change, revision ${number}, was changed again by others. “Take back” in History shows both.`, {
        seconds: 8,
      })
    else if (back.now === 'failed') notice(back.why, { error: true })
    else if (back.now === 'stale') notice('The plan was changed in the meantime. Here it is as it stands now.')
    return true
  }
  return false
}
