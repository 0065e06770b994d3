import { computed, ref, watch } from 'vue'
import { refDebounced } from '@vueuse/core'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Revision } from '../api/types'
import { useSite } from '../site/useSite'
import { change } from '../ui/figures'

const page = 50

/** The revisions of the plan in hand, newest first, and a page more when asked. */
export function useHistory() {
  const site = useSite()
  const person = ref('')
  const words = ref('')
  const search = refDebounced(
    computed(() => ({ author: person.value.trim() || undefined, text: words.value.trim() || undefined })),
    200,
  )
  const problem = ref('')
  const earlier = ref<Revision[]>([])
  const more = ref(false)

  const question = (before: number) =>
    api.GET('/api/plans/{id}/revisions', {
      params: { ...site.here, query: { before, limit: page, ...search.value } },
    })
  const { data, failure, again } = useAnswer(
    () => [site.stamp, search.value],
    () => question(0),
    { keep: true },
  )
  watch(data, (list) => {
    earlier.value = []
    more.value = list?.length === page
  })
  const revisions = computed(() => [...(data.value ?? []), ...earlier.value])

  async function loadMore() {
    const told = await ask(question(revisions.value.at(-1)!.number))
    problem.value = told.problem
    if (!told.data) return
    earlier.value = [...earlier.value, ...told.data]
    more.value = told.data.length === page
  }

  /** Keeps the name of a revision, or takes it away. */
  async function rename(r: Revision, name: string) {
    if (name === r.name) return
    const params = { path: { id: site.planId, number: r.number } }
    const told = await ask(api.PUT('/api/plans/{id}/revisions/{number}/name', { params, body: { name } }))
    problem.value = told.problem && `${told.problem} Revision ${r.number} is not named.`
    if (!told.problem) r.name = name
    data.value = data.value && [...data.value]
  }

  /** How many days more or fewer than before a revision, where both are known and listed. */
  function moved(i: number): string {
    const [now, then] = [revisions.value[i]!, revisions.value[i + 1]]
    const known = then?.number === now.number - 1 && now.keptDays != null && then.keptDays != null
    return known ? change(now.keptDays! - then.keptDays!) : ''
  }

  const failed = computed(() => failure.value || problem.value)
  return { person, words, revisions, more, failed, again, loadMore, rename, moved }
}
