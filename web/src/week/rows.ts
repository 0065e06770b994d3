import type { Channel, Figures } from '../api/types'

export const ROW = 27 // at least; rows grow with the room there is
export const TALLEST = 64
export const HEADING = 20

export type Row = { kind: 'group'; name: string; ids: string[] } | { kind: 'channel'; channel: Channel }

/** How channels are ordered and which are shown. */
export interface Arrangement {
  sort: 'number' | 'name' | 'gigabytes' | 'short'
  grouped: boolean
  findings: boolean // only those with findings
  search: string
}

export const plain: Arrangement = { sort: 'number', grouped: true, findings: false, search: '' }

const compare: Record<Arrangement['sort'], (figures: (id: string) => Figures | undefined) => (a: Channel, b: Channel) => number> = {
  number: () => () => 0, // as they come in the plan, which is by recorder and number for most
  name: () => (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }),
  gigabytes: (f) => (a, b) => (f(b.id)?.gigabytesPerDay ?? 0) - (f(a.id)?.gigabytesPerDay ?? 0),
  short: (f) => (a, b) => missing(f(b.id)) - missing(f(a.id)),
}

/** Days that are missing, below zero where more are kept than required. */
function missing(f: Figures | undefined): number {
  if (f?.requiredDays == null) return -1e6
  return f.requiredDays - (f.retentionDays ?? 1e5)
}

/** The rows that are shown: channels by group where they are grouped, groups and channels in the order asked for. */
export function rowsOf(channels: Channel[], how: Arrangement, figures: (id: string) => Figures | undefined, found: ReadonlySet<string>): Row[] {
  const words = how.search.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = channels.filter((c) => (!how.findings || found.has(c.id)) && words.every((w) => `${c.number} ${c.name} ${c.group ?? ''}`.toLowerCase().includes(w)))
  const order = compare[how.sort](figures)
  const sorted = how.sort === 'number' ? [...shown].sort((a, b) => (a.recorder === b.recorder ? a.number - b.number : 0)) : [...shown].sort(order)
  if (!how.grouped) return sorted.map((channel) => ({ kind: 'channel' as const, channel }))
  const groups = new Map<string, Channel[]>()
  for (const c of sorted) {
    const name = c.group ?? ''
    if (!groups.has(name)) groups.set(name, [])
    groups.get(name)!.push(c)
  }
  return [...groups].flatMap(([name, list]) => [
    ...(name ? [{ kind: 'group' as const, name, ids: list.map((c) => c.id) }] : []),
    ...list.map((channel) => ({ kind: 'channel' as const, channel })),
  ])
}
