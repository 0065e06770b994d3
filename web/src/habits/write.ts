/** How somebody reads times of day and numbers. */
export interface Habits {
  is12: boolean
  apart: string // between thousands
  point: string // before decimals
}

/** A time of day, "06:30", "6:00" or "14:05:32", which no other digits belong to; not one with am or pm already. */
const TIME = /(?<![\w:.])(\d{1,2}):([0-5]\d)(:[0-5]\d)?(?!\w|[:.]\d|\s?[ap]m\b)/g
/** A number with thousands apart or with decimals; not a version, an address or a part of a name. */
const NUMBER = /(?<![\w.:,]|\d\u202f)(\d{1,3}(?:\u202f\d{3})+|\d+)(\.\d+)?(?!\w|\.\w|\u202f\d)/g

/** Writes an hour of the day, "6a" or "12p". */
export const hourWritten = (hour: number) => `${hour % 12 || 12}${hour % 24 < 12 ? 'a' : 'p'}`

function withoutNames(text: string, h: Habits): string {
  const timed = h.is12
    ? text.replace(TIME, (all: string, hour: string, minute: string, seconds = '') => {
        const n = Number(hour)
        return n > 24 ? all : `${n % 12 || 12}:${minute}${seconds}\u202f${n % 24 < 12 ? 'am' : 'pm'}`
      })
    : text
  if (h.apart === '\u202f' && h.point === '.') return timed
  return timed.replace(
    NUMBER,
    (_, whole: string, part = '') => whole.replaceAll('\u202f', h.apart) + part.replace('.', h.point),
  )
}

/** What somebody typed, as the program quotes it. */
const QUOTED = /(“[^”]*”)/

/**
 * Writes a text of the program as its reader reads times and numbers. Names that somebody gave stay as they are, and so
 * does what is quoted: it was typed so, or is to be.
 */
export function written(text: string, h: Habits, names?: RegExp): string {
  if (!/\d[.:\u202f]\d/.test(text)) return text
  const others = (given: string, own: RegExp | undefined, write: (part: string) => string) =>
    own
      ? given
          .split(own)
          .map((part, i) => (i % 2 ? part : write(part)))
          .join('')
      : write(given)
  return others(text, QUOTED, (part) => others(part, names, (other) => withoutNames(other, h)))
}

/** Names in which something looks like a time or a number, to be found in texts, longest first. */
export function namesIn(names: Iterable<string>): RegExp | undefined {
  const list = [...names].sort((a, b) => b.length - a.length)
  return list.length
    ? new RegExp(`(${list.map((n) => n.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')).join('|')})`, 'u')
    : undefined
}
