import { until, useStorage } from '@vueuse/core'

import { again, newKey } from '../api/again'
import { ask, type Question } from '../api/ask'
import { author } from '../api/author'
import { api } from '../api/client'
import type { Answer, Conflict } from '../api/types'
import { notice } from '../ui/notice'
import type { Sending } from './useSending'
import type { Shown } from './useShown'
import { useTurns } from './useTurns'

/** What becomes of the answers to steps. */
interface Reader {
  take: (answer: Answer) => void
  reload: () => Promise<void>
  restored: () => Promise<void>
}

const done = { undo: 'Undone', redo: 'Done again', return: 'Done' }

type On = { version: number; mark: string }
type Way = (params: { path: { id: string }; header: { 'Idempotency-Key': string } }, on: On) => Question<Answer>

const ways: Record<'undo' | 'redo', Way> = {
  undo: (params, body) => api.POST('/api/plans/{id}/undo', { params, body }),
  redo: (params, body) => api.POST('/api/plans/{id}/redo', { params, body }),
}

/** Steps through the history of a plan: undo, redo, back to a revision. Whose change is undone is looked at first. */
export function useSteps(shown: Shown, sending: Pick<Sending, 'queue' | 'on'>, reader: Reader) {
  const { queue, on } = sending
  /** Revisions made in this browser: two people may have the same name. */
  const mine = useStorage<Record<string, number[]>>('wakefield-mine', {})
  const ofPlan = () => mine.value[shown.planId.value] ?? []
  const isOthers = () => shown.undoesBy.value !== author.value || !ofPlan().includes(shown.version.value)
  const back = new Set<number>() // revisions that took one of those back
  let stepping = false
  let asked = 0 // the version at which undoing another's change was asked about

  /** Keeps in mind that a revision was made here. */
  function made(revision: number) {
    mine.value = { ...mine.value, [shown.planId.value]: [...ofPlan(), revision].slice(-200) }
  }

  /** Forgets those of a history that is gone. */
  function forget() {
    mine.value = { ...mine.value, [shown.planId.value]: [] }
  }

  /** Goes a step, once what is on its way has arrived; tells whether it was done. */
  async function go(what: keyof typeof done, way: Way): Promise<boolean> {
    await until(queue.state).not.toBe('saving')
    if (queue.waiting.value.length || stepping) return false
    stepping = true
    const header = { 'Idempotency-Key': newKey() }
    const from = on() // the same whenever it is sent again, as its key belongs to that
    const told = await ask(again(() => way({ ...shown.here.value, header }, from)))
    stepping = false
    if (told.data) {
      reader.take(told.data)
      notice(`${done[what]}: ${told.data.sentence}`, { seconds: 2.5 })
      return true
    }
    if (told.status === 409 && (told.error as Conflict).restored) {
      await reader.restored()
    } else if (told.status === 409) {
      await reader.reload()
      notice('The plan was changed in the meantime. Here it is as it stands now.', { seconds: 5 })
    } else {
      notice(told.status ? told.problem : 'The server does not answer. Whether that was done shows when it is back.', {
        error: true,
      })
    }
    return false
  }

  const kit = { shown, sending, reader, mine, ofPlan, back }
  /** Takes a single change back; what met others' changes, or failed, is for whoever asked to say. */
  const takeBack = async (number: number, anyway = false) =>
    (await import('./takingBack')).takeBack(kit, number, anyway)
  /** Takes back the last change of one's own, where others changed something since. Tells whether there was one. */
  const takeOwnBack = async () => ofPlan().length > 0 && (await import('./takingBack')).takeOwnBack(kit)

  /** Undoes or redoes; under others' changes one's own last change is taken back. Theirs are asked about. */
  const step = useTurns(async (what: 'undo' | 'redo') => {
    const { undoes, undoesBy, redoes, version } = shown
    if (what === 'redo' && back.has(version.value)) return go('redo', ways.undo)
    const isUnderOthers = back.has(version.value) || isOthers()
    if (what === 'undo' && undoes.value && isUnderOthers && asked !== version.value && (await takeOwnBack()))
      return true
    if (!(what === 'undo' ? undoes.value : redoes.value)) return false
    if (what === 'undo' && undoesBy.value && isOthers() && asked !== version.value) {
      asked = version.value
      const whose =
        undoesBy.value === author.value ? `${undoesBy.value}’s, made in another browser` : `${undoesBy.value}’s`
      notice(`The last change is ${whose}: ${undoes.value}. Once more undoes it.`, { seconds: 6 })
      return false
    }
    return go(what, ways[what])
  })

  /** Returns to an earlier revision, as a new one. */
  const returnTo = (revision: number) =>
    go('return', (params, on) => api.POST('/api/plans/{id}/return', { params, body: { ...on, revision } }))

  return { step, returnTo, takeBack, made, forget, busy: () => stepping }
}
