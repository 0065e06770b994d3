import { newKey } from '../api/again'

/** Tells this session of the page from others: its monotonic clock counts within it alone. */
export const session = newKey()

const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']

/** Minutes since Monday 00:00 on the clocks of a time zone. */
export function minuteOf(zone: string, at: number): number {
  const part = Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      weekday: 'short',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
      .formatToParts(at)
      .map((p) => [p.type, p.value]),
  )
  return days.indexOf(part.weekday!) * 1440 + Number(part.hour) * 60 + Number(part.minute)
}

/** Seconds since midnight on the clocks of a time zone, with parts of a second. */
export function secondOfDay(zone: string, at: number): number {
  const part = Object.fromEntries(
    new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
      hourCycle: 'h23',
    })
      .formatToParts(at)
      .map((p) => [p.type, p.value]),
  )
  return Number(part.hour) * 3600 + Number(part.minute) * 60 + Number(part.second) + (at % 1000) / 1000
}

const half = 43200

/** A difference of two times of day, as the shorter way round midnight. */
export const apart = (a: number, b: number) => ((((a - b + half) % 86400) + 86400) % 86400) - half

/** Writes seconds since midnight as 14:03:07. */
export function clockOf(seconds: number): string {
  const s = ((Math.round(seconds) % 86400) + 86400) % 86400
  return [s / 3600, (s / 60) % 60, s % 60].map((n) => String(Math.floor(n)).padStart(2, '0')).join(':')
}

const typed = /^(\d{1,2})[:.h ]?(\d{2})[:.m ]?(\d{2})([.,]\d+)?\s*s?$/i

/** Reads a time of day as people type it: 14:03:07, 140307, 14.03.07, 14:03:07.5; in seconds since midnight. */
export function readClock(text: string): number | undefined {
  const m = typed.exec(text.trim())
  if (!m) return undefined
  const [h, min, s] = [Number(m[1]), Number(m[2]), Number(m[3])]
  if (h > 23 || min > 59 || s > 59) return undefined
  return h * 3600 + min * 60 + s + Number((m[4] ?? '.0').replace(',', '.'))
}

/** Writes seconds with one digit behind the point, and a real minus. */
export const seconds = (s: number) => s.toFixed(1).replace('-', '−') + ' s'
