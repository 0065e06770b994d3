/** The days that an act on one day is meant for. */
export type DaysMeant = 'this day' | 'working days' | 'every day'

export function daysOf(day: number, meant: DaysMeant): number[] {
  if (meant === 'every day') return [0, 1, 2, 3, 4, 5, 6]
  if (meant === 'working days') return day < 5 ? [0, 1, 2, 3, 4] : [5, 6]
  return [day]
}
