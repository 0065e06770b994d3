/** Where a browser keeps how its reader reads: clock, first day, counted from Monday, and signs of numbers. */
export const KEPT = 'wakefield-habits'
/** As Wakefield itself writes: 24 hours, Monday first, thousands apart by a thin space, a decimal point. */
export const HOUSE = '24|0|\u202f.'

function read(): string {
  try {
    return localStorage.getItem(KEPT) ?? ''
  } catch {
    return '' // a browser that keeps nothing
  }
}

/** What was chosen; a part that is empty is as the browser has it. */
export const kept = read()

type Info = { firstDay: number }
type Known = Intl.Locale & { getWeekInfo?: () => Info; weekInfo?: Info }

/** With which day a week begins, counted from Monday: 6 is Sunday; Monday where a browser does not tell. */
export function firstOf(chosen: string, locale: string): number {
  const day = chosen.split('|')[1]
  if (day) return Number(day) % 7 || 0
  const known = new Intl.Locale(locale) as Known
  return ((known.getWeekInfo?.() ?? known.weekInfo)?.firstDay ?? 1) - 1
}

/** With which day the week of whoever is here begins. It is shown so, and stored nowhere. */
export const first = firstOf(kept, navigator.language)
