import { readNumber } from './number'

const units: Record<string, number> = { s: 1, min: 60, h: 3600, d: 86400 }
const meant: Record<string, string> = {
  '': 's',
  s: 's',
  sec: 's',
  secs: 's',
  second: 's',
  seconds: 's',
  m: 'min',
  min: 'min',
  mins: 'min',
  minute: 'min',
  minutes: 'min',
  h: 'h',
  hr: 'h',
  hrs: 'h',
  hour: 'h',
  hours: 'h',
  d: 'd',
  day: 'd',
  days: 'd',
}

/** Reads a length of time as people type it, "15 min" or "1.5 h", in seconds. A bare number has the unit shown. */
export function readDuration(
  text: string,
  least: number,
  most: number,
  shown = '',
): { value: number } | { why: string } {
  const m = /^\s*([\d.,\u202f ]*\d)\s*([a-z]*)\.?\s*$/i.exec(text)
  const unit = m && meant[(m[2] || /[a-z]+$/.exec(shown)?.[0] || '').toLowerCase()]
  if (!m || !unit) return { why: 'Not a length of time: use 90 s, 15 min or 2 h' }
  const read = readNumber(m[1]!, { min: 0 })
  if ('why' in read) return read
  const value = Math.round(read.value * units[unit]! * 1000) / 1000
  if (value < least) return { why: `At least ${durationInWords(least)}` }
  if (value > most) return { why: `At most ${durationInWords(most)}` }
  return { value }
}

/** Writes seconds with the largest unit that leaves a whole number. */
export function durationInWords(seconds: number): string {
  if (seconds >= 172800 && seconds % 86400 === 0) return `${seconds / 86400} days`
  if (seconds >= 3600 && seconds % 3600 === 0) return `${seconds / 3600} h`
  if (seconds >= 60 && seconds % 60 === 0) return `${seconds / 60} min`
  return `${seconds} s`
}

/** Writes how long something takes, which need not be exact. */
export function about(seconds: number): string {
  const of = (value: number, unit: string) =>
    `${value >= 9.95 ? Math.round(value) : Math.round(value * 10) / 10} ${unit}`
  if (seconds < 99.5) return of(seconds, 's')
  if (seconds < 5970) return of(seconds / 60, 'min')
  if (seconds < 172000) return of(seconds / 3600, 'h')
  return of(seconds / 86400, 'days')
}
