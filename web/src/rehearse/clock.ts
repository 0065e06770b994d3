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

/**
 * A time of day in seconds after midnight as clocks show it. In a day of 23 or 25 hours clocks are an hour off behind
 * the change, which is in the early morning everywhere that has one.
 */
export function clockOf(data: Played, at: number): string {
  const day = dayAt(data, at)
  let s = Math.floor(at - day.from)
  if (day.hours !== 24 && s >= 3 * 3600) s += (24 - day.hours) * 3600
  return `${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`
}

export const momentOf = (data: Played, at: number) => `${dayName(dayAt(data, at).date)} ${clockOf(data, at)}`
