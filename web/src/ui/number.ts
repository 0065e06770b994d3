import { unitsOf } from '../api/format'
import { habits } from '../habits/now'
import type { Habits } from '../habits/write'

/** What was read of a text: a number, or why there is none. */
export type ReadNumber = { value: number } | { why: string }

/** What a number may be. */
export interface Limits {
  min?: number
  max?: number
  whole?: boolean
}

// The ways to write a number: plain, with the thousands apart, and with both a comma and points or the other way round.
const plain = /^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d{1,2})?$/
const apart = /^[+-]?\d{1,3}([ '’]\d{3})+([.,]\d*)?$/
const byPoint = /^[+-]?\d{1,3}(\.\d{3})+,\d*$|^[+-]?\d{1,3}(\.\d{3}){2,}$/
const byComma = /^[+-]?\d{1,3}(,\d{3})+\.\d*$|^[+-]?\d{1,3}(,\d{3}){2,}$/
/** May be a fraction or thousands. */
const commaEither = /^[+-]?[1-9]\d{0,2},\d{3}$/
const pointEither = /^[+-]?[1-9]\d{0,2}\.\d{3}$/

type Signs = Pick<Habits, 'apart' | 'point'>

/**
 * Whether a number can mean two, to its reader: where a comma stands before decimals it means one, and a point may not.
 */
const meansTwo = (written: string, h: Signs) =>
  h.point === ',' ? h.apart === '.' && pointEither.test(written) : commaEither.test(written)

/** Why a number that can mean two is refused, with both as its reader writes them. */
function twoMeanings(given: string, written: string, h: Signs) {
  const [whole, part] = written.split(/[.,]/)
  return `“${given}” can mean two numbers: write “${whole}${part}” or “${whole}${h.point}${part}”`
}

/**
 * A text of a number as the program reads it, to whom a comma before three digits can mean two: where its writer has
 * the comma before decimals it means one. It is refused where it can mean two to them.
 */
export function sentNumber(text: string, h: Signs = habits): { text: string } | { why: string } {
  const m = /^\s*([+\-−]?[\d.,]+)(.*)$/s.exec(text)
  if (h.point !== ',' || !m) return { text }
  const written = m[1]!.replace('−', '-')
  if (meansTwo(written, h)) return { why: twoMeanings(text.trim(), written, h) }
  return { text: commaEither.test(written) ? written.replace(',', '.') + m[2] : text }
}

/** The digits of a number as the program would write them; nothing where there is no number. */
function digitsOf(written: string): string | undefined {
  if (plain.test(written)) return written.replace(',', '.')
  if (apart.test(written)) return written.replace(/[ '’]/g, '').replace(',', '.')
  if (byPoint.test(written)) return written.replaceAll('.', '').replace(',', '.')
  if (byComma.test(written)) return written.replaceAll(',', '')
  return undefined
}

/** Takes the unit off a text, and says by what its number is multiplied; nothing for a unit that is not the field's. */
function takeUnit(given: string, unit: string): { written: string; times: number } | undefined {
  const m = /^(.*?[\d.,])\s*([^\d\s.,+\-'’].*)?$/.exec(given)
  const said = m?.[2]?.trim().toLowerCase()
  if (!m || !said || plain.test(given.toLowerCase())) return { written: given, times: 1 }
  const times = said === unit.toLowerCase() ? 1 : unitsOf(unit)[said]
  return times === undefined ? undefined : { written: m[1]!, times }
}

/**
 * Reads a number as the core reads it (core/quantity), so that a refusal is said while it is typed: as people write it,
 * with its unit behind it or not. What could mean two numbers is refused, as is what lies outside the limits.
 */
export function readNumber(text: string, { min, max, whole }: Limits = {}, unit = '', h: Signs = habits): ReadNumber {
  const given = text
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .replaceAll('−', '-')
    .trim()
  const taken = takeUnit(given, unit)
  if (!taken) return { why: `“${given}” is not ${unit ? `in ${unit}` : 'a number'}` }
  const written = taken.written.trim().toLowerCase()
  if (meansTwo(written, h)) return { why: twoMeanings(given, written, h) }
  const digits = digitsOf(written)
  if (digits === undefined) return { why: `“${given}” is not a number` }
  const exact = Number(digits) * taken.times
  if (Math.abs(exact) > 1e15) return { why: `“${given}” is too large a number` }
  const value = taken.times === 1 ? exact : Math.round(exact * 1e9) / 1e9
  if (min != null && value < min) return { why: `at least ${min}` }
  if (max != null && value > max) return { why: `at most ${max}` }
  if (whole && !Number.isInteger(value)) return { why: 'a whole number' }
  return { value }
}
