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

export type Reach = 'each day' | 'right through'

/**
 * The hours that a drag from one moment to another means. "Each day" takes the times of day at its ends for
 * every day between them, so that Tuesday 06:00 to Friday 22:00 leaves the nights alone; "right through" takes
 * every minute.
 */
export function hoursOf(drag: Span, reach: Reach): Hours[] {
  const first = dayOf(drag.from)
  const last = dayOf(drag.to - 1)
  const from = drag.from - first * DAY
  const to = drag.to - last * DAY
  const days = (a: number, b: number) => weekdays.slice(a, b + 1)
  if (first === last) return [{ days: days(first, last), from: clock(from), to: clock(to) }]
  if (reach === 'each day' && from !== to) {
    return [{ days: days(first, from < to ? last : last - 1), from: clock(from), to: clock(to) }]
  }
  const hours: Hours[] = [{ days: days(first, first), from: clock(from), to: '24:00' }]
  if (last - first > 1) hours.push({ days: days(first + 1, last - 1), from: '00:00', to: '24:00' })
  hours.push({ days: days(last, last), from: '00:00', to: clock(to) })
  return hours
}

/** The stretches of the week that hours cover. */
export function spansOf(hours: Hours[]): Span[] {
  const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3))
  return hours.flatMap((h) =>
    (h.days?.length ? h.days : weekdays).flatMap((d) => {
      const start = weekdays.indexOf(d) * DAY
      const from = start + minutes(h.from)
      const to = start + minutes(h.to) + (minutes(h.to) <= minutes(h.from) ? DAY : 0)
      return to > WEEK ? [{ from, to: WEEK }, { from: 0, to: to - WEEK }] : [{ from, to }]
    }),
  )
}

/** Says hours as "Tue to Fri 06:00–22:00". */
export function inWords(hours: Hours[]): string {
  return hours
    .map((h) => {
      const days = h.days ?? []
      const name = (d: Weekday) => dayNames[weekdays.indexOf(d)]!.slice(0, 3)
      const when = days.length > 1 ? `${name(days[0]!)} to ${name(days.at(-1)!)}` : days.length ? name(days[0]!) : 'Every day'
      return `${when} ${h.from}–${h.to}`
    })
    .join(', ')
}
