import { computed, shallowRef } from 'vue'

import { mayPass } from '../api/again'
import { ask } from '../api/ask'
import { api, inWords } from '../api/client'
import type { Answer, Conflict, Edit, Problem } from '../api/types'
import { notice } from '../ui/notice'
import { useQueue, type Echo, type Pending, type Sent } from './useQueue'
import type { Shown } from './useShown'

/** Said of what was made on a history that a backup has taken the place of. */
export const gone = 'A backup was restored: this was made on a plan that is not there any more.'

/** Said of what was made on a variant that somebody removed. */
const removed = 'This variant was removed meanwhile. Open another and make it there, or restore this one.'

/** What becomes of the answers to changes. */
interface Reader {
  take: (answer: Answer) => void
  reload: () => Promise<void>
  restored: () => Promise<void>
}

/** Changes on their way to the server: sent in order, echoed until they are answered; those that met others' wait. */
export function useSending(shown: Shown, reader: Reader) {
  const conflict = shallowRef<{ on: number; since: Conflict['since']; more: number; pending: Pending }>()

  /** What a change is made on. */
  const on = () => ({ version: shown.version.value, mark: shown.mark.value })

  /**
   * Sends one change. What may go better later waits; a refusal is shown and dropped; what the server fails on is set
   * aside.
   */
  async function send(pending: Pending): Promise<Sent> {
    pending.on ??= on()
    const told = await ask(
      api.POST('/api/plans/{id}/edits', {
        params: { ...shown.here.value, header: { 'Idempotency-Key': pending.key } },
        body: { ...pending.on, edits: pending.edits },
      }),
    )
    if (told.data) reader.take(told.data)
    else if (!told.status) return { now: 'later' }
    else return await refused(told.status, told.error!, pending)
    return { now: 'done' }
  }

  async function refused(status: number, problem: Problem, pending: Pending): Promise<Sent> {
    if (mayPass(status) || status === 401) return { now: 'later' } // who signs in again goes on
    if (status === 403) return { now: 'aside', why: inWords(problem) }
    if (problem.type === 'wakefield:removed') return { now: 'aside', why: removed, anew: true }
    if (status === 409 && (problem as Conflict).restored) {
      void reader.restored()
      return { now: 'aside', why: gone, anew: true }
    }
    if (status === 409) {
      const { since, more } = problem as Conflict
      conflict.value = { on: shown.version.value, since, more, pending }
      await reader.reload()
    } else if (status >= 500) {
      return { now: 'aside', why: inWords(problem) }
    } else if (pending.refused) {
      pending.refused(problem)
    } else {
      notice(`Not changed. ${inWords(problem)}`, { error: true, seconds: 8 })
    }
    return { now: 'done' }
  }

  const queue = useQueue(send)

  function change(edits: Edit[], echo?: Echo, refused?: Pending['refused']) {
    queue.add({ edits, echo, refused })
  }

  /** Makes the change again that met a newer version, on that version. */
  function tryAgain() {
    if (conflict.value) change(conflict.value.pending.edits, conflict.value.pending.echo)
    conflict.value = undefined
  }

  const echoes = computed(() => queue.waiting.value.flatMap((p) => (p.echo ? [p.echo] : [])))
  /** Channels with a stroke on its way. */
  const waitingOn = computed(() => new Set(echoes.value.flatMap((e) => e.channels)))

  return { queue, conflict, on, change, tryAgain, echoes, waitingOn }
}

export type Sending = ReturnType<typeof useSending>
