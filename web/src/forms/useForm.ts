import { ref } from 'vue'

import { ask, type Question, type Told } from '../api/ask'
import type { Problem } from '../api/types'

/** A form that is sent as a whole: what is wrong with which field, or with all of it, and whether it is on its way. */
export function useForm() {
  const busy = ref(false)
  const problem = ref('') // of the whole
  const problems = ref<Record<string, string>>({}) // by field

  async function send<T>(question: () => Question<T>): Promise<Told<T> | undefined> {
    if (busy.value) return undefined // a second Enter sends nothing
    busy.value = true
    problem.value = ''
    problems.value = {}
    const told = await ask(question())
    busy.value = false
    if (told.status >= 200 && told.status < 300) return told
    const fields = ((told.error as Problem | undefined)?.errors ?? []).filter((e) => e.location?.startsWith('body.'))
    problems.value = Object.fromEntries(fields.map((e) => [e.location!.slice(5), told.problem]))
    if (!fields.length) problem.value = told.problem
    return told
  }

  return { busy, problem, problems, send }
}
