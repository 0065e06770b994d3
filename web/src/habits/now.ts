import { kept } from './kept'
import { written, type Habits } from './write'

/** What a browser has where nothing was chosen. */
export function ofBrowser(locale: string): Habits {
  const parts = new Intl.NumberFormat(locale, { useGrouping: true, numberingSystem: 'latn' }).formatToParts(1234567.8)
  const sign = (type: string) => parts.find((p) => p.type === type)?.value
  return {
    is12: !!new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions().hour12,
    apart: sign('group')?.replace(/\s/, '\u202f') ?? '\u202f',
    point: sign('decimal') ?? '.',
  }
}

/** What was chosen, over what a browser has. */
export function habitsOf(chosen: string, locale: string): Habits {
  const [clock, , signs] = chosen.split('|')
  const browser = ofBrowser(locale)
  return {
    is12: clock ? clock === '12' : browser.is12,
    apart: signs?.[0] ?? browser.apart,
    point: signs?.[1] ?? browser.point,
  }
}

/** How whoever is here reads times and numbers. */
export const habits = habitsOf(kept, navigator.language)

/** A text as its reader reads it, for fields and canvases, whose texts are no text of the page. */
export const asRead = (text: string) => written(text, habits)

/** Whether anything is written otherwise than Wakefield writes it. */
export const differs = habits.is12 || habits.apart !== '\u202f' || habits.point !== '.'
