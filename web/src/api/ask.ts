import { useDebounceFn } from '@vueuse/core'
import { computed, getCurrentScope, onScopeDispose, ref, shallowRef, watch } from 'vue'

import { inWords } from './client'
import type { Problem } from './types'

/** What a question of the generated client comes to. */
export type Question<T> = Promise<{ data?: T; error?: unknown; response: Response }>

/** What was answered: data, or why there is none. The status is 0 where nobody answered. */
export interface Told<T> {
  data?: T
  problem: string
  error?: Problem
  status: number
}

export const away = 'No connection to the server.'

/** Waits for an answer. A failure is words, never an exception. */
export async function ask<T>(question: Question<T>): Promise<Told<T>> {
  try {
    const { data, error, response } = await question
    if (response.ok) return { data, problem: '', status: response.status }
    return { problem: inWords(error as Problem), error: error as Problem, status: response.status }
  } catch {
    return { problem: away, status: 0 }
  }
}

/** Whether two things are the same, or lists of the same things. */
export function alike(a: unknown, b: unknown): boolean {
  if (!Array.isArray(a) || !Array.isArray(b)) return Object.is(a, b)
  return a.length === b.length && a.every((x, i) => Object.is(x, b[i]))
}

/**
 * The answer to a question that is asked anew whenever what it is about changes. Of several on their way only the
 * newest counts, and none after the component is gone. An answer stays until the next one where it is kept, and goes at
 * once where it must be fresh. A question that is undefined is not asked, and has no answer.
 */
export function useAnswer<T>(
  about: () => unknown,
  question: () => Question<T> | undefined,
  { debounce = 0, keep = false, fresh = false } = {},
) {
  const data = shallowRef<T>()
  const failure = ref('')
  const asking = ref(false)
  // A list is made anew whenever anything near it changes: what is in it counts.
  const what = computed((before?: unknown) => {
    const now = about()
    return alike(before, now) ? before : now
  })
  let newest = 0

  async function again() {
    const mine = ++newest
    const asked = question()
    asking.value = !!asked
    if (!asked) {
      data.value = undefined
      failure.value = ''
      return
    }
    const told = await ask(asked)
    if (mine !== newest) return
    asking.value = false
    failure.value = told.problem
    if (told.data !== undefined || !keep) data.value = told.data
  }

  /** What it is about has changed: an answer of before is late, and may not stand beside what is asked now. */
  function turn() {
    newest++
    asking.value = true
    if (fresh) data.value = undefined
  }

  if (getCurrentScope()) onScopeDispose(() => newest++)
  watch(what, turn, { immediate: true })
  watch(what, debounce ? useDebounceFn(again, debounce) : again, { immediate: true })
  return { data, failure, asking, again }
}
