import { weekdays } from '../time/week'

/** Whether a day of the shown week is a Saturday or a Sunday. */
export const isWeekend = (day: number) => weekdays[day]!.startsWith('s')

/** The days that an act on one day is meant for. */
export type DaysMeant = 'this day' | 'working days' | 'every day'

export function daysOf(day: number, meant: DaysMeant): number[] {
  if (meant === 'this day') return [day]
  const all = [0, 1, 2, 3, 4, 5, 6]
  return meant === 'every day' ? all : all.filter((d) => isWeekend(d) === isWeekend(day))
}
