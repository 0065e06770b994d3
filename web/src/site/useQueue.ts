import { computed, ref, shallowRef, watch } from 'vue'

import { newKey, patience, pause } from '../api/again'
import type { Edit, Problem } from '../api/types'
import type { Span } from '../time/week'

/** A stroke that is drawn before the server has answered. */
export interface Echo {
  channels: string[]
  spans: Span[]
  duty: string
}

/** A change on its way to the server. */
export interface Pending {
  /** Under which it is kept once, however often it is sent. */
  key: string
  edits: Edit[]
  echo?: Echo
  /** Is told when the change is refused, and then says so itself. */
  refused?: (problem: Problem) => void
}

/** A change that the server failed on. It is set aside, so that those after it go on. */
export interface Aside {
  pending: Pending
  why: string
}

/** What became of sending a change. */
export type Sent = { now: 'done' } | { now: 'later' } | { now: 'aside'; why: string }

/**
 * Sends changes one after the other, in order. A change that cannot be kept now waits and is tried again until it
 * can; one that the server fails on is set aside. Closing the page warns while there is any of either.
 */
export function useQueue(send: (pending: Pending) => Promise<Sent>) {
  const waiting = shallowRef<Pending[]>([])
  const aside = shallowRef<Aside[]>([])
  const away = ref(false)
  let busy = false

  async function run() {
    if (busy) return
    busy = true
    let wait = patience.first
    while (waiting.value.length) {
      const pending = waiting.value[0]!
      const sent = await send(pending)
      if (sent.now === 'later') {
        away.value = true
        await pause(wait)
        wait = Math.min(patience.most, wait * 2)
        continue
      }
      if (sent.now === 'aside') aside.value = [...aside.value, { pending, why: sent.why }]
      waiting.value = waiting.value.slice(1)
      away.value = false
      wait = patience.first
    }
    busy = false
  }

  function add(pending: Omit<Pending, 'key'>) {
    waiting.value = [...waiting.value, { ...pending, key: newKey() }]
    void run()
  }

  /** Takes a change out of those set aside, and sends it once more or not. */
  function settle(one: Aside, sendAgain: boolean) {
    aside.value = aside.value.filter((a) => a !== one)
    if (!sendAgain) return
    waiting.value = [...waiting.value, one.pending]
    void run()
  }

  const warn = (event: BeforeUnloadEvent) => event.preventDefault()
  watch(
    () => waiting.value.length + aside.value.length > 0,
    (any) => (any ? addEventListener('beforeunload', warn) : removeEventListener('beforeunload', warn)),
  )

  const state = computed(() => (away.value ? 'away' : waiting.value.length ? 'saving' : 'saved'))
  return { waiting, aside, state, add, settle }
}
