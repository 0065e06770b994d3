import type { Compared } from '../api/types'
import { dayAndMonth } from '../time/dates'
import { change, changeGB, days, gigabytes, three } from '../ui/figures'

/** A figure that variants are held against each other by. */
export interface Row {
  name: string
  of: (c: Compared) => number | null | undefined // undefined where there is none
  say: (c: Compared) => string
  differs?: (by: number) => string // a difference as it is written; three digits without
  better: 'more' | 'less'
}

const money = (c: Compared) => {
  if (!c.price) return 'no prices'
  const sum = `${three(c.price.total)} ${c.price.currency}`
  const unknown = c.price.unknownTerabytes ?? []
  return unknown.length ? `${sum} and drives of ${unknown.map(three).join(', ')} TB without a price` : sum
}

export const rows: Row[] = [
  {
    name: 'days kept, of the channel nearest to what it must keep',
    of: (c) => c.verdict.keptDays ?? Infinity,
    say: (c) =>
      days(c.verdict.keptDays) + (c.verdict.requiredDays == null ? '' : ` of ${c.verdict.requiredDays} required`),
    better: 'more',
  },
  {
    name: 'at the worst hour',
    of: (c) => c.verdict.worstDays ?? Infinity,
    say: (c) => days(c.verdict.worstDays),
    better: 'more',
  },
  {
    name: 'on the worst date of the year',
    of: (c) => c.year?.worstDays,
    say: (c) => (c.year ? `${days(c.year.worstDays)} on ${dayAndMonth(c.year.worstDate)}` : 'no date is special'),
    better: 'more',
  },
  {
    name: 'holds in',
    of: (c) => (c.verdict.requiredDays == null ? undefined : c.verdict.holdsPercent),
    say: (c) =>
      c.verdict.requiredDays == null
        ? 'nothing is required'
        : `${Math.round(c.verdict.holdsPercent)} % chance all are met`,
    differs: (by) => (Math.round(by) ? `${by > 0 ? '+' : '−'}${Math.round(Math.abs(by))} points` : ''),
    better: 'more',
  },
  {
    name: 'written a day',
    of: (c) => c.verdict.gigabytesPerDay,
    say: (c) => gigabytes(c.verdict.gigabytesPerDay),
    differs: changeGB,
    better: 'less',
  },
  {
    name: 'wanted events missed a day',
    of: (c) => c.verdict.evidence.missedPerDay,
    say: (c) => three(c.verdict.evidence.missedPerDay),
    better: 'less',
  },
  {
    name: 'kept low a day',
    of: (c) => c.verdict.evidence.lowPerDay,
    say: (c) => three(c.verdict.evidence.lowPerDay),
    better: 'less',
  },
  {
    name: 'errors, warnings',
    of: (c) => 1000 * (c.findings.error ?? 0) + (c.findings.warning ?? 0),
    say: (c) => `${c.findings.error ?? 0}, ${c.findings.warning ?? 0}`,
    differs: () => '', // two numbers have no one difference
    better: 'less',
  },
  { name: 'messages a day', of: (c) => c.messagesPerDay, say: (c) => three(c.messagesPerDay), better: 'less' },
  {
    name: 'price of the drives',
    of: (c) => (c.price?.unknownTerabytes?.length ? undefined : c.price?.total),
    say: money,
    better: 'less',
  },
]

/** How a variant differs from the first by a row; empty where it does not, or where that cannot be told. */
export function differenceOf(row: Row, c: Compared, first: Compared): string {
  const [a, b] = [row.of(first), row.of(c)]
  if (a == null || b == null || !Number.isFinite(b - a)) return ''
  return (row.differs ?? change)(b - a)
}

/** Whether a row tells variants apart. */
export const tells = (row: Row, all: Compared[]) => all.length < 2 || new Set(all.map(row.say)).size > 1

/** Whether anything is known by a row. */
export const isKnown = (row: Row, all: Compared[]) => all.some((c) => row.of(c) != null)

/** Whether a variant is the best of several by a row, told only where they differ by what is shown. */
export function isBest(row: Row, c: Compared, all: Compared[]): boolean {
  const values = all.map(row.of).filter((v): v is number => v != null)
  const mine = row.of(c)
  if (mine == null || values.length < 2 || new Set(all.map(row.say)).size < 2) return false
  const best = row.better === 'more' ? Math.max(...values) : Math.min(...values)
  return mine === best && values.some((v) => v !== best)
}
