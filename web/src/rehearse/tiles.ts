import type { PlayedChannel } from '../api/types'
import { firstFrom } from './drawTimeline'
import { FULL } from './rows'

/** What a channel does at a moment of played-out days. */
export interface Tile {
  id: string
  layer: number // what is written: -1 for nothing, 0 for the base layer, above it the cause of a full layer
  away: boolean // it looks elsewhere
  event: boolean // something that is wanted goes on in front of it
}

/** What a channel does at a moment, in seconds since the first midnight. */
export function tileAt(c: PlayedChannel, at: number): Tile {
  const k = firstFrom(c.to, at + 1e-6)
  const on = k < c.from.length && c.from[k]! <= at
  let away = false
  for (let a = 0; a + 1 < c.away.length; a += 2) if (c.away[a]! <= at && at < c.away[a + 1]!) away = true
  let event = false
  for (let e = firstFrom(c.start, at - 900); e < c.start.length && c.start[e]! <= at; e++)
    if (at < c.start[e]! + c.length[e]! && c.fate[e]! <= FULL) event = true
  return { id: c.id, layer: on ? c.layer[k]! : -1, away, event }
}

/** How soon a tile is shown: what records an event first, then the base layer, then nothing. */
export const rankOf = (t: Tile) => (t.layer > 0 ? 0 : t.layer === 0 ? 1 : 2)

/** The channels in the order in which they are shown, those of one rank as they stand in the plan. */
export const inOrder = (tiles: Tile[]) => [...tiles].sort((a, b) => rankOf(a) - rankOf(b)).map((t) => t.id)
