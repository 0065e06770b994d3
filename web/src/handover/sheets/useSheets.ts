import { shallowRef, watch } from 'vue'

import { again } from '../../api/again'
import { ask, useAnswer, type Question } from '../../api/ask'
import { api } from '../../api/client'
import type { Sheets } from '../../api/types'
import { useSite } from '../../site/useSite'
import { notice } from '../../ui/notice'

/** The sheets of the plan, and what is done of them; they follow the plan, and what others tick. */
export function useSheets() {
  const site = useSite()
  const sheets = shallowRef<Sheets>()
  const { data, failure } = useAnswer(
    () => [site.stamp, site.handed],
    () => (site.planId ? api.GET('/api/plans/{id}/sheets', { params: site.here }) : undefined),
    { keep: true },
  )
  watch(data, (told) => told && (sheets.value = told))

  async function send(what: string, question: () => Question<Sheets>): Promise<boolean> {
    const told = await ask(again(question, 3))
    if (told.data) sheets.value = told.data
    else notice(`${what}. ${told.problem}`, { error: true, seconds: 8 })
    return !!told.data
  }

  /** Says that steps of a recorder are done, or not after all. */
  const tick = (recorder: string, keys: string[], done: boolean) =>
    send('Not ticked', () =>
      api.POST('/api/plans/{id}/ticks', { params: { ...site.here, header: {} }, body: { recorder, keys, done } }),
    )

  /** Says that sheets were printed as they stand. */
  const printed = (recorders: string[]) =>
    send('That it was printed is not kept', () =>
      api.POST('/api/plans/{id}/printed', {
        params: { ...site.here, header: {} },
        body: { recorders, version: sheets.value!.version },
      }),
    )

  return { sheets, failure, tick, printed }
}
