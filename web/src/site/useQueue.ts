import { computed, ref, shallowRef, watch } from 'vue'

import type { Pending } from './useSite'

/** How long to wait before trying again, in milliseconds: at first, and at most. */
const patience = { first: 500, most: 5000 }

/**
 * Sends changes one after the other, in order. A change that cannot be kept now waits and is tried again until it
 * can; closing the page warns while anything waits.
 */
export function useQueue(send: (pending: Pending) => Promise<'done' | 'later'>) {
  const waiting = shallowRef<Pending[]>([])
  const away = ref(false)
  let busy = false

  async function run() {
    if (busy) return
    busy = true
    let pause = patience.first
    while (waiting.value.length) {
      if ((await send(waiting.value[0]!)) === 'done') {
        waiting.value = waiting.value.slice(1)
        away.value = false
        pause = patience.first
      } else {
        away.value = true
        await new Promise((resolve) => setTimeout(resolve, pause))
        pause = Math.min(patience.most, pause * 2)
      }
    }
    busy = false
  }

  function add(pending: Pending) {
    waiting.value = [...waiting.value, pending]
    void run()
  }

  const warn = (event: BeforeUnloadEvent) => event.preventDefault()
  watch(
    () => waiting.value.length > 0,
    (any) => (any ? addEventListener('beforeunload', warn) : removeEventListener('beforeunload', warn)),
  )

  const state = computed(() => (away.value ? 'away' : waiting.value.length ? 'saving' : 'saved'))
  return { waiting, state, add }
}
