import type { Ribbon, Week } from '../api/types'
import { spansOf, WEEK } from '../time/week'

/** The duty that holds from each moment of a named week to the next: a later block covers an earlier one. */
export function railOf(week: Pick<Week, 'otherwise' | 'blocks'>): Ribbon['rail'] {
  let rail: Ribbon['rail'] = [{ from: 0, duty: week.otherwise }]
  for (const block of week.blocks ?? []) {
    for (const { from, to } of spansOf([block])) {
      const after = rail.findLast((s) => s.from <= to)!.duty
      rail = [...rail.filter((s) => s.from < from), { from, duty: block.duty }, ...(to < WEEK ? [{ from: to, duty: after }] : []), ...rail.filter((s) => s.from > to)]
    }
  }
  return rail.filter((s, i) => i === 0 || s.duty !== rail[i - 1]!.duty)
}
