/** What was read of a text: a date as 2027-02-01, or why there is none. */
export type ReadDate = { value: string } | { why: string }

/** The order in which a reader writes the parts of a date, such as day, month, year. */
export function orderOf(locale: string): ('day' | 'month' | 'year')[] {
  const parts = new Intl.DateTimeFormat(locale, { dateStyle: 'short' }).formatToParts(Date.UTC(2027, 1, 3))
  return parts
    .map((p) => p.type)
    .filter((t): t is 'day' | 'month' | 'year' => t === 'day' || t === 'month' || t === 'year')
}

const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']

/**
 * Reads a date: ISO, in the reader's order with any separators or none, or with the month by name. The year has four
 * digits.
 */
export function readDate(text: string, locale = navigator.language): ReadDate {
  const given = text.trim()
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(given)
  const named = /^(\d{1,2})\.?\s+([a-z]{3})[a-z]*\.?,?\s+(\d{4})$/i.exec(given)
  const order = orderOf(locale)
  const digits = order[0] === 'year' ? /^(\d{4})(\d{2})(\d{2})$/ : /^(\d{2})(\d{2})(\d{4})$/
  const split = digits.exec(given)?.slice(1) ?? given.split(/[\s./-]+/).filter(Boolean)
  let parts: Record<'day' | 'month' | 'year', string> | undefined
  if (iso) parts = { year: iso[1]!, month: iso[2]!, day: iso[3]! }
  else if (named)
    parts = { day: named[1]!, month: String(months.indexOf(named[2]!.toLowerCase()) + 1), year: named[3]! }
  else if (split.length === 3 && split.every((p) => /^\d+$/.test(p))) {
    parts = Object.fromEntries(order.map((name, i) => [name, split[i]!])) as Record<'day' | 'month' | 'year', string>
  }
  if (!parts) return { why: `“${given}” is not a date; write 2027-02-01, or ${order.join(', ')}` }
  if (parts.year.length !== 4) return { why: 'the year has four digits' }
  const value = `${parts.year}-${parts.month.padStart(2, '0')}-${parts.day.padStart(2, '0')}`
  const there = new Date(`${value}T00:00:00Z`)
  if (Number.isNaN(there.getTime()) || there.toISOString().slice(0, 10) !== value)
    return { why: `there is no ${parts.day}. of month ${parts.month} in ${parts.year}` }
  if (value < '1970' || value >= '2201') return { why: 'between 1970 and 2200' }
  return { value }
}

/** Writes a date in the reader's order. */
export function writeDate(date: string, locale = navigator.language): string {
  return new Intl.DateTimeFormat(locale, { day: '2-digit', month: '2-digit', year: 'numeric', timeZone: 'UTC' }).format(
    Date.parse(date),
  )
}
