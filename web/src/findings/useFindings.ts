import { computed } from 'vue'

import type { Finding } from '../api/types'
import { useSite } from '../site/useSite'

/** The channels that a finding is about. */
export const channelsOf = (f: Finding): string[] => f.channels ?? (f.channel ? [f.channel] : [])

export type Severity = Finding['severity']
export const severities = ['error', 'warning', 'hint'] as const

/** The findings of the site in hand, counted, and a way to mend one. */
export function useFindings() {
  const site = useSite()
  const count = computed(() => {
    const n = { error: 0, warning: 0, hint: 0 }
    for (const f of site.findings) n[f.severity]++
    return n
  })

  function mend(finding: Finding) {
    if (finding.fix) site.change(finding.fix.edits)
  }

  return { count, mend }
}
