import { takeUnit } from './units'

/** What was read of a text: a number, or why there is none. */
export type ReadNumber = { value: number } | { why: string }

/** What a number may be. */
export interface Limits {
  min?: number
  max?: number
  whole?: boolean
}

/**
 * Reads a number as people write it: with a point or a comma, thousands apart by spaces. What could mean two things is
 * refused, as is what lies outside the limits; nothing is changed without a word.
 */
export function readNumber(text: string, { min, max, whole }: Limits = {}, unit?: string): ReadNumber {
  const taken = takeUnit(text, unit)
  if (!taken) return { why: `“${text.trim()}” is not ${unit ? `in ${unit}` : 'a number'}` }
  const packed = taken.number
    .trim()
    .replace(/[\s\u00a0\u202f']/g, '')
    .replace('−', '-')
  if (!/^-?(\d+([.,]\d*)?|[.,]\d+)$/.test(packed)) return { why: `“${text.trim()}” is not a number` }
  if (/^-?[1-9]\d{0,2},\d{3}$/.test(packed))
    return {
      why: `“${text.trim()}” can mean two numbers: write ${packed.replace(',', '')} or ${packed.replace(',', '.')}`,
    }
  const value = Math.round(Number(packed.replace(',', '.')) * taken.times * 1e9) / 1e9
  if (min != null && value < min) return { why: `at least ${min}` }
  if (max != null && value > max) return { why: `at most ${max}` }
  if (whole && !Number.isInteger(value)) return { why: 'a whole number' }
  return { value }
}
