import type { Hours, Weekday } from '../api/types'

/** Minutes of the week, from Monday 00:00. */
export const DAY = 1440
export const WEEK = 7 * DAY
export const weekdays: readonly Weekday[] = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun']
export const dayNames = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'] as const

export interface Span {
  from: number
  to: number
}

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
