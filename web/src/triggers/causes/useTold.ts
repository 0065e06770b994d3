import { watch } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useSite } from '../../site/useSite'

/** Causes and ties of the plan that is shown, as the server tells them: all of them anew, and what a change changed. */
export function useTold() {
  const site = useSite()
  const { data, failure } = useAnswer(
    () => site.stamp,
    () => api.GET('/api/plans/{id}/ties', { params: site.here }),
    { debounce: 60, keep: true },
  )
  watch(
    () => site.planId,
    () => (data.value = undefined),
  )
  // A change tells what became of the ties; the rest follows when all are asked for.
  watch(
    () => site.answered,
    (answer) => {
      const known = data.value
      if (!answer?.ties || !known || known.version + 1 !== answer.version) return
      const { from, gone, put, shift } = answer.ties
      const behind = (known.ties ?? []).slice(from + gone)
      const moved = shift ? behind.map((t) => ({ ...t, effect: t.effect + shift })) : behind
      data.value = {
        ...known,
        version: answer.version,
        ties: [...(known.ties ?? []).slice(0, from), ...(put ?? []), ...moved],
      }
    },
  )
  return { data, failure }
}
