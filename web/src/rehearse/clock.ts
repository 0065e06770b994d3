import type { Played } from '../api/types'

/** Which day a moment is in, and what the clocks of the site show, from the days as the server tells them. */
export function dayAt(data: Played, at: number) {
  const days = data.days
  let k = 0
  while (k + 1 < days.length && days[k + 1]!.from <= at) k++
  return days[k]!
}

const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' })
const two = (n: number) => String(n).padStart(2, '0')

export const dayName = (date: string) => weekday.format(Date.parse(date))

/** The time of day that clocks show at a moment. Behind a change of the clocks they are an hour off. */
export function clockOf(data: Played, at: number): string {
  const day = dayAt(data, at)
  let s = Math.floor(at - day.from)
  if (day.change != null && s >= day.change) s += (24 - day.hours) * 3600
  return `${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`
}

/**
 * The moment of a day at which clocks show a time, in seconds after midnight: the first of two, and the change itself
 * for a time that they leave out.
 */
export function secondsOf(day: Played['days'][number], seconds: number): number {
  if (day.change == null || seconds < day.change) return day.from + seconds
  return day.from + Math.max(day.change, seconds - (24 - day.hours) * 3600)
}

/** What was taken of a time of day that clocks leave out, or show twice; empty for others. */
export function tookInstead(day: Played['days'][number], seconds: number): string {
  if (day.change == null) return ''
  const jump = (24 - day.hours) * 3600 // seconds that clocks leave out; below 0 that they show twice
  const time = (s: number) => `${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}`
  if (jump > 0 && seconds >= day.change && seconds < day.change + jump)
    return `Clocks leave out ${time(seconds)} on that day; ${time(day.change + jump)} is meant here.`
  if (jump < 0 && seconds >= day.change + jump && seconds < day.change)
    return `Clocks show ${time(seconds)} twice on that day; the first is meant here.`
  return ''
}

export const momentOf = (data: Played, at: number) => `${dayName(dayAt(data, at).date)} ${clockOf(data, at)}`
