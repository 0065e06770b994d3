import { computed } from 'vue'

import { author } from '../api/author'
import type { Edit, Finding } from '../api/types'
import { useSharedWeeks } from '../hand/useSharedWeeks'
import { useSite } from '../site/useSite'
import { isoDate } from '../time/dates'

/** What a finding says of a channel, of several that it is about. */
export const sentenceOn = (f: Finding, channel?: string) =>
  f.places?.find((p) => p.channel === channel)?.sentence ?? f.sentence

/** The channels that a finding is about. */
export const channelsOf = (f: Finding): string[] => f.channels ?? (f.channel ? [f.channel] : [])

/** The fix of a finding, or one of the other ways to mend it, from 1. */
export const fixOf = (f: Finding, choice = 0) => (choice ? f.choices?.[choice - 1] : f.fix)

export type Severity = Finding['severity']
export const severities = ['error', 'warning', 'hint'] as const

/** The findings of the site in hand, counted, and a way to mend one. */
export function useFindings() {
  const site = useSite()
  const shared = useSharedWeeks()
  const count = computed(() => {
    const n = { error: 0, warning: 0, hint: 0 }
    for (const f of site.findings) if (!f.accepted) n[f.severity]++
    return n
  })

  /**
   * Makes the fix of a finding, or what is chosen in its place; where it paints channels that follow a named week, asks
   * as for a stroke.
   */
  async function mend(finding: Finding, choice = 0) {
    const fix = fixOf(finding, choice)
    if (!fix) return
    const paints = fix.edits.flatMap((e) => (e.paint && !e.paint.shared ? (e.paint.channels ?? []) : []))
    const groups = await shared.sort([...new Set(paints)])
    if (!groups) return
    const edits = fix.edits.flatMap((e): Edit[] => {
      if (!e.paint?.channels || e.paint.shared) return [e] // a week is painted for all that follow it anyway
      const part = (ids: string[]) => e.paint!.channels!.filter((id) => ids.includes(id))
      const [own, all] = [part(groups.own), part(groups.shared)]
      return [
        ...(own.length ? [{ paint: { ...e.paint, channels: own } }] : []),
        ...(all.length ? [{ paint: { ...e.paint, channels: all, shared: true } }] : []),
      ]
    })
    site.change([...groups.first, ...edits])
  }

  /** Accepts a finding on purpose; the reason stays in the plan. */
  function accept(finding: Finding, reason: string) {
    const today = isoDate(Date.now())
    site.change([{ acceptFinding: { finding: finding.key, reason, by: author.value || undefined, on: today } }])
  }

  const reopen = (key: string) => site.change([{ reopenFinding: { finding: key } }])

  return { count, mend, accept, reopen }
}
