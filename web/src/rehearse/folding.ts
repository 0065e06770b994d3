import type { PlayedChannel } from '../api/types'
import { firstFrom, ROW } from './drawTimeline'

/** How high a row is of which nothing is in view, where the view is closer than a day; with a group's name above it. */
export const FOLDED = 12
const GROUP = 12
const CLOSE = 86_000 // seconds, a little less than a day without the hour that a clock change takes away

/** Whether nothing of a row is in view: no footage, and no event of those that are shown. */
export function isEmpty(row: PlayedChannel, from: number, to: number, shows: (fate: number) => boolean) {
  const footage = firstFrom(row.to, from)
  if (footage < row.from.length && row.from[footage]! < to) return false
  for (let k = firstFrom(row.start, from - 3600); k < row.start.length && row.start[k]! < to; k++)
    if (row.start[k]! + row.length[k]! >= from && shows(row.fate[k]!)) return false
  return true
}

/** Where rows begin, below each other, and where the last one ends: empty ones are folded when one looks closer. */
export function topsOf(
  rows: PlayedChannel[],
  view: { from: number; to: number },
  shows: (fate: number) => boolean,
  beginsGroup: (row: number) => boolean,
): number[] {
  const close = view.to - view.from < CLOSE
  const tops = [0]
  rows.forEach((row, k) => {
    const high = close && isEmpty(row, view.from, view.to, shows) ? FOLDED + (beginsGroup(k) ? GROUP : 0) : ROW
    tops.push(tops[k]! + high)
  })
  return tops
}

/** The row at a height below the first one's top; -1 above all, and their number below all. */
export function rowAt(tops: number[], y: number) {
  return firstFrom(tops, y + 1e-9) - 1
}
