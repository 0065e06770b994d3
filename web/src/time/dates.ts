/** Dates and moments as every page writes them: "29 Nov 2026", "29 Nov 2026, 14:05". */

const moments = new Map<string, Intl.DateTimeFormat>()

/** Writes a moment, by the reader's clocks or by those of a time zone. */
export function moment(at: string | number | Date, timeZone?: string): string {
  let format = moments.get(timeZone ?? '')
  if (!format) {
    format = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short', timeZone })
    moments.set(timeZone ?? '', format)
  }
  return format.format(new Date(at))
}

const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' })

/** Writes a date that is given as 2026-11-29. */
export const dateWords = (iso: string) => day.format(new Date(`${iso.slice(0, 10)}T00:00:00Z`))

/** The date of a moment as 2026-11-29, by the reader's clocks or by those of a time zone. */
export const isoDate = (at: string | number | Date, timeZone?: string) =>
  new Intl.DateTimeFormat('sv-SE', { timeZone }).format(new Date(at))

const short = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' })

/** Writes a date of a year that is known, such as 7 Aug. */
export const dayAndMonth = (date: string) => short.format(Date.parse(date))
