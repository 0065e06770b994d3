import { ref } from 'vue'

import { inWords } from '../../api/client'
import type { Edit } from '../../api/types'
import { useSite } from '../../site/useSite'

/** Changes whose refusal is said where they were made. */
export function useEdits() {
  const site = useSite()
  const problem = ref('')
  function change(...edits: Edit[]) {
    problem.value = ''
    site.change(edits, undefined, (p) => (problem.value = inWords(p)))
  }
  return { problem, change, complain: (text: string) => (problem.value = text) }
}
