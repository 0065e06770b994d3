import { computed, ref, shallowRef, watch } from 'vue'

import { newKey, patience, pause } from '../api/again'
import type { Draft, Edit, Problem } from '../api/types'
import type { Span } from '../time/week'

/** A stroke that is drawn before the server has answered. */
export interface Echo {
  channels: string[]
  spans: Span[]
  duty: string
  draft?: Draft // what the server said before that it would change
}

/** A change on its way to the server. */
export interface Pending {
  /** Under which it is kept once, however often it is sent. */
  key: string
  edits: Edit[]
  /** The version it was first sent on. Sent again it is the very same request, as its key belongs to that. */
  on?: { version: number; mark: string }
  echo?: Echo
  /** Is told when the change is refused, and then says so itself. */
  refused?: (problem: Problem) => void
}

/** A change that the server failed on. It is set aside, so that those after it go on. */
export interface Aside {
  pending: Pending
  why: string
  /** Whether it is another request when it is sent again: on the plan as it is then. */
  anew?: boolean
}

/** What became of sending a change. */
export type Sent = { now: 'done' } | { now: 'later' } | { now: 'aside'; why: string; anew?: boolean }

/**
 * Sends changes one after the other, in order. A change that cannot be kept now waits and is tried again until it
 * can; one that the server fails on is set aside. Closing the page warns while there is any of either.
 */
export function useQueue(send: (pending: Pending) => Promise<Sent>) {
  const waiting = shallowRef<Pending[]>([])
  const aside = shallowRef<Aside[]>([])
  const away = ref(false)
  let busy = false

  /** Sends what waits; begun is the sending of the first. */
  async function run(begun?: Promise<Sent>) {
    if (busy) return
    busy = true
    let wait = patience.first
    while (waiting.value.length) {
      const pending = waiting.value[0]!
      const sent = await (begun ?? send(pending))
      begun = undefined
      if (sent.now === 'later') {
        away.value = true
        await pause(wait)
        wait = Math.min(patience.most, wait * 2)
        continue
      }
      if (sent.now === 'aside') {
        const one = { pending, why: sent.why, anew: sent.anew }
        // What waited behind one that is gone is aside already.
        aside.value = sent.anew ? [one, ...aside.value] : [...aside.value, one]
      }
      waiting.value = waiting.value.slice(1)
      away.value = false
      wait = patience.first
    }
    busy = false
  }

  function add(pending: Omit<Pending, 'key'>) {
    const one = { ...pending, key: newKey() }
    // Where nothing is on its way it is sent before all that is drawn when it waits.
    const begun = busy ? undefined : send(one)
    waiting.value = [...waiting.value, one]
    void run(begun)
  }

  /** Sets aside what waits, but for what is on its way: of that the answer tells. */
  function putAside(why: string) {
    const [first, ...rest] = waiting.value
    aside.value = [...aside.value, ...rest.map((pending) => ({ pending, why, anew: true }))]
    waiting.value = first ? [first] : []
  }

  /** Takes a change out of those set aside, and sends it once more or not. */
  function settle(one: Aside, sendAgain: boolean) {
    aside.value = aside.value.filter((a) => a !== one)
    if (!sendAgain) return
    waiting.value = [...waiting.value, one.anew ? { ...one.pending, on: undefined, key: newKey() } : one.pending]
    void run()
  }

  const warn = (event: BeforeUnloadEvent) => event.preventDefault()
  watch(
    () => waiting.value.length + aside.value.length > 0,
    (any) => (any ? addEventListener('beforeunload', warn) : removeEventListener('beforeunload', warn)),
  )

  const state = computed(() => (away.value ? 'away' : waiting.value.length ? 'saving' : 'saved'))
  return { waiting, aside, state, add, settle, putAside }
}
