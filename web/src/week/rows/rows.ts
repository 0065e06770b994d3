import type { Channel, Figures, Recorder } from '../../api/types'
import { count, days, gigabytes, three } from '../../ui/figures'

export const ROW = 27 // at least; rows grow with the room there is
export const TALLEST = 64
export const HEADING = 20

/** A group says what its channels come to, and the days that they keep where the group before it keeps others. */
export type Row =
  { kind: 'group'; name: string; ids: string[]; says: string; kept: string } | { kind: 'channel'; channel: Channel }

/** How channels are ordered and which are shown. */
export interface Arrangement {
  sort: 'number' | 'name' | 'gigabytes' | 'share' | 'short' | 'missed'
  grouped: boolean
  byRecorder: boolean // groups are the recorders
  findings: boolean // only those with findings
  search: string
}

export const plain: Arrangement = { sort: 'number', grouped: true, byRecorder: false, findings: false, search: '' }

const compare: Record<
  Arrangement['sort'],
  (figures: (id: string) => Figures | undefined) => (a: Channel, b: Channel) => number
> = {
  number: () => () => 0, // as they come in the plan, which is by recorder and number for most
  name: () => (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }),
  gigabytes: (f) => (a, b) => (f(b.id)?.gigabytesPerDay ?? 0) - (f(a.id)?.gigabytesPerDay ?? 0),
  share: (f) => (a, b) => (f(b.id)?.gigabytesPerDay ?? 0) - (f(a.id)?.gigabytesPerDay ?? 0),
  missed: (f) => (a, b) => (f(b.id)?.evidence.missedPerDay ?? 0) - (f(a.id)?.evidence.missedPerDay ?? 0),
  short: (f) => (a, b) => missing(f(b.id)) - missing(f(a.id)),
}

/** Days that are missing, below zero where more are kept than required. */
function missing(f: Figures | undefined): number {
  if (f?.requiredDays == null) return -1e6
  return f.requiredDays - (f.retentionDays ?? 1e5)
}

/** The days that most channels of each pool keep, as they are written. */
export function daysOfPools(
  channels: Channel[],
  figures: (id: string) => Figures | undefined,
): ReadonlyMap<string, string> {
  const most = new Map<string, string>()
  const often: Record<string, number> = {}
  for (const { id, pool, noCamera } of channels) {
    const kept = !noCamera && keptOf(figures(id))
    if (!kept) continue
    const of = (k?: string) => often[`${pool} ${k}`] ?? 0
    often[`${pool} ${kept}`] = of(kept) + 1
    if (of(kept) > of(most.get(pool)) || !most.has(pool)) most.set(pool, kept)
  }
  return most
}

const keptOf = (f: Figures | undefined) => f && days(f.retentionDays)

/**
 * The figure of a channel that its row shows: what rows are ordered by, else what it writes, or the days it keeps where
 * these are too few, or others than its pool keeps.
 */
export function figureOf(
  sort: Arrangement['sort'],
  f: Figures | undefined,
  sum: number,
  pool: string | undefined,
): string {
  switch (f && sort) {
    case 'number':
    case 'name':
      return f!.short || (pool && keptOf(f) !== pool) ? keptOf(f)! : gigabytes(f!.gigabytesPerDay)
    case 'gigabytes':
      return gigabytes(f!.gigabytesPerDay)
    case 'share':
      return `${three(sum ? (100 * f!.gigabytesPerDay) / sum : 0)} %`
    case 'missed':
      return `${three(f!.evidence.missedPerDay)} missed`
    default:
      return days(f?.retentionDays)
  }
}

/** What a group comes to. */
function subtotal(list: Channel[], figures: (id: string) => Figures | undefined): string {
  const gb = list.reduce((sum, c) => sum + (figures(c.id)?.gigabytesPerDay ?? 0), 0)
  return `${count(list.length, 'channel')} · ${gigabytes(gb)}`
}

/** The rows that are shown: channels by group where they are grouped, groups and channels in the order asked for. */
export function rowsOf(
  channels: Channel[],
  how: Arrangement,
  figures: (id: string) => Figures | undefined,
  found: ReadonlySet<string>,
  recorders: Recorder[],
): Row[] {
  const words = how.search.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = channels.filter(
    (c) =>
      (!how.findings || found.has(c.id)) &&
      words.every((w) => `${c.number} ${c.name} ${c.group ?? ''}`.toLowerCase().includes(w)),
  )
  const order = compare[how.sort](figures)
  const sorted =
    how.sort === 'number'
      ? [...shown].sort((a, b) => (a.recorder === b.recorder ? a.number - b.number : 0))
      : [...shown].sort(order)
  if (!how.grouped && !how.byRecorder) return sorted.map((channel) => ({ kind: 'channel' as const, channel }))
  const groups = new Map<string, Channel[]>()
  for (const c of sorted) {
    const name = how.byRecorder ? (recorders.find((r) => r.id === c.recorder)?.name ?? c.recorder) : (c.group ?? '')
    if (!groups.has(name)) groups.set(name, [])
    groups.get(name)!.push(c)
  }
  const pools = daysOfPools(channels, figures)
  let before = ''
  return [...groups].flatMap(([name, list]) => {
    const all = [...new Set(list.flatMap((c) => pools.get(c.pool) ?? []))].join(', ')
    const kept = all === before ? '' : all
    before = all
    const group = { kind: 'group' as const, name, ids: list.map((c) => c.id), says: subtotal(list, figures), kept }
    return [...(name ? [group] : []), ...list.map((channel) => ({ kind: 'channel' as const, channel }))]
  })
}
