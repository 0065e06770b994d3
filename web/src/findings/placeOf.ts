import type { Finding } from '../api/types'
import { channelsOf } from './useFindings'

/** Where parts of the plan are decided, by how their paths begin or go on; the first that fits. */
const places: [RegExp, string, string?][] = [
  [/^(messages|outputs|monitors)\[/, 'triggers', 'messages'],
  [/^effects|^alarmInputs\[|^callButtons\[/, 'triggers', 'causes'],
  [/^offsite/, 'triggers', 'offsite'],
  [/^channels\[\d+\]\.(stills|movable)/, 'triggers', 'stills'],
  [/^channels\[\d+\]\.(detection|scene|events)/, 'triggers'],
]

/** A page, and what of it. */
export interface Place {
  name: string
  params?: Record<string, string>
  query?: Record<string, string>
}

/** The page on which a finding is decided; nothing where there is none. */
export function placeOf(f: Finding): Place | undefined {
  const found = channelsOf(f).length > 1 ? undefined : places.find(([path]) => path.test(f.path))
  if (found) return { name: found[1], params: { part: found[2] ?? '' } }
  return channelsOf(f).length || f.pool ? { name: 'week' } : undefined
}
