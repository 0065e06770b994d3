import type { Plan, PlayedChannel, Played } from '../api/types'

/** An event as the timeline has it. */
export interface Pointed {
  channel: string
  event: number
  start: number
  length?: number // seconds, where it is known
}

/** Fates as the server tells them. */
export const MISSED = 0
export const LOW = 1
export const FULL = 2

export const OTHER = 5 // alarms, buttons, pictures that are lost

/** A line of the timeline: a channel, or what happens beside the channels' own motion. */
export interface Row extends PlayedChannel {
  cause?: string // its name
  group?: string
}
const groupsOfCauses = {
  alarm: 'Alarm inputs',
  button: 'Buttons',
  lost: 'Pictures',
  tampered: 'Pictures',
  uplinkLost: 'Uplink',
}

type Channel = Plan['channels'][number]

/** Whether a text has all of some words in it. */
export function hasWords(text: string, words: string) {
  const low = text.toLowerCase()
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((w) => low.includes(w))
}

/** Rows of the channels that some words find, group by group, as each first comes. */
export function cameraRows(played: PlayedChannel[], channels: Map<string, Channel>, words: string): Row[] {
  const groups = new Map<string, Row[]>()
  for (const c of played) {
    const ch = channels.get(c.id)
    if (!hasWords(`${ch?.number} ${ch?.name} ${ch?.group ?? ''}`, words)) continue
    const group = ch?.group ?? ''
    groups.set(group, [...(groups.get(group) ?? []), c])
  }
  return [...groups.values()].flat()
}

/** Rows of what happens beside the channels' own motion, of what some words find. */
export function causeRows(played: NonNullable<Played['causes']>, words: string): Row[] {
  return played
    .filter((c) => hasWords(`${c.name} ${groupsOfCauses[c.kind]}`, words))
    .map(({ kind, id, name, start, length, event }) => ({
      id: `${kind} ${id}`,
      cause: name,
      group: groupsOfCauses[kind],
      start,
      length,
      event,
      fate: start.map(() => OTHER),
      from: [],
      to: [],
      layer: [],
      walk: [],
      away: [],
    }))
}

/** Which events are looked at. */
export type Fates = 'all' | 'missed' | 'low' | 'unwanted' | 'alarms'

/** Whether an event that came out so is one of those. */
export const fits: Record<Fates, (fate: number) => boolean> = {
  all: () => true,
  missed: (fate) => fate === MISSED,
  low: (fate) => fate === LOW,
  unwanted: (fate) => fate > FULL && fate < OTHER,
  alarms: (fate) => fate === OTHER,
}
