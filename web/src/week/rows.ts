import type { Channel } from '../api/types'

export const ROW = 27
export const HEADING = 20

export type Row = { kind: 'group'; name: string; ids: string[] } | { kind: 'channel'; channel: Channel }

/** The channels in the order they are shown: by group, groups and channels as they come in the plan. */
export function rowsOf(channels: Channel[]): Row[] {
  const groups = new Map<string, Channel[]>()
  for (const c of channels) {
    const name = c.group ?? ''
    if (!groups.has(name)) groups.set(name, [])
    groups.get(name)!.push(c)
  }
  return [...groups].flatMap(([name, list]) => [
    ...(name ? [{ kind: 'group' as const, name, ids: list.map((c) => c.id) }] : []),
    ...list.map((channel) => ({ kind: 'channel' as const, channel })),
  ])
}
