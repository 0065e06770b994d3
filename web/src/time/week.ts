import type { Hours, Weekday } from '../api/types'
import { first } from '../habits/kept'

/** Minutes of the week as it is shown, from 00:00 of the day that the reader begins it with. */
export const DAY = 1440
export const WEEK = 7 * DAY
const shown = <T>(days: readonly T[]): readonly T[] => [...days.slice(first), ...days.slice(0, first)]
export const weekdays = shown<Weekday>(['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'])
export const dayNames = shown(['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'])

export interface Span {
  from: number
  to: number
}

/** A stretch of the shown week, counted from Monday as the server and addresses do: it may end before it begins. */
export const fromMonday = ({ from, to }: Span): Span => ({
  from: (from + first * DAY) % WEEK,
  to: (to + first * DAY) % WEEK || WEEK,
})

/** The minute of the shown week of one that is counted from Monday on. */
export const toShown = (minute: number) => (minute - first * DAY + WEEK) % WEEK

/** Where a span lies in the part of the week that is shown, in percent of its width. */
export function placeIn(view: Span, s: Span) {
  const length = view.to - view.from
  return { left: `${(100 * (s.from - view.from)) / length}%`, width: `${(100 * (s.to - s.from)) / length}%` }
}

/** Writes minutes since midnight as "06:30"; 1440 is "24:00". */
export function clock(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

export function dayOf(minute: number): number {
  return Math.min(6, Math.floor(minute / DAY))
}

/** Writes a moment of the week as "Tue 06:30". */
export function moment(minute: number): string {
  return `${dayNames[dayOf(minute)]!.slice(0, 3)} ${clock(minute - dayOf(minute) * DAY)}`
}

/** Says hours as "Tue to Fri 06:00–22:00". */
export function inWords(hours: Hours[]): string {
  return hours
    .map((h) => {
      const days = h.days ?? []
      const name = (d: Weekday) => dayNames[weekdays.indexOf(d)]!.slice(0, 3)
      const when =
        days.length > 1 ? `${name(days[0]!)} to ${name(days.at(-1)!)}` : days.length ? name(days[0]!) : 'Every day'
      return `${when} ${h.from}–${h.to}`
    })
    .join(', ')
}
