import { readNumber, type ReadNumber } from './number'

const notOne = 'Not a length of time: use 90 s, 15 min or 2 h'

/** Reads a length of time as people type it, "15 min" or "1.5 h", in seconds. A bare number has the unit shown. */
export function readDuration(text: string, least: number, most: number, shown = ''): ReadNumber {
  const unit = /[a-z]+$/i.exec(shown)?.[0] ?? 's'
  const bare = /\d[.,]?\s*$/.test(text)
  const read = readNumber(bare ? `${text} ${unit}` : text.replace(/\.\s*$/, ''), {}, 's')
  if ('why' in read) return read.why.includes('two numbers') ? read : { why: notOne }
  if (read.value < least) return { why: `At least ${durationInWords(least)}` }
  if (read.value > most) return { why: `At most ${durationInWords(most)}` }
  return read
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
