import { DAY, dayNames, weekdays } from '../../time/week'
import type { Weekday } from '../../api/types'

/** A stretch of a day with one duty; minutes of the day. */
export interface Block {
  from: number
  to: number
  duty: string
}

/** Days of the week that go on alike, with their blocks. */
export interface AlikeDays {
  days: Weekday[]
  words: string // "Mon to Fri"
  blocks: Block[]
}

/** What is decided over a week, by days: those that follow each other alike are one. */
export function blocksOf(rail: readonly { from: number; duty: string }[]): AlikeDays[] {
  const all: AlikeDays[] = []
  for (const [d, day] of weekdays.entries()) {
    const blocks = rail
      .map((step, i) => ({
        from: Math.max(0, step.from - d * DAY),
        to: Math.min(DAY, (rail[i + 1]?.from ?? 7 * DAY) - d * DAY),
        duty: step.duty,
      }))
      .filter((b) => b.to > b.from)
    const last = all.at(-1)
    if (last && JSON.stringify(last.blocks) === JSON.stringify(blocks)) last.days.push(day)
    else all.push({ days: [day], words: '', blocks })
  }
  const name = (day: Weekday) => dayNames[weekdays.indexOf(day)]!.slice(0, 3)
  for (const a of all) a.words = a.days.length > 1 ? `${name(a.days[0]!)} to ${name(a.days.at(-1)!)}` : name(a.days[0]!)
  return all
}
