import type { Activity } from '../../api/types'
import { DAY, spansOf, WEEK } from '../../time/week'

export interface RateStep {
  from: number
  perHour: number
}

/** How often an activity happens from each moment to the next: a later block covers an earlier one. */
export function rateSteps(activity: Pick<Activity, 'otherwisePerHour' | 'blocks'>): RateStep[] {
  let steps: RateStep[] = [{ from: 0, perHour: activity.otherwisePerHour ?? 0 }]
  for (const block of activity.blocks ?? []) {
    for (const { from, to } of spansOf([block])) {
      const after = steps.findLast((s) => s.from <= to)!.perHour
      steps = [
        ...steps.filter((s) => s.from < from),
        { from, perHour: block.perHour },
        ...(to < WEEK ? [{ from: to, perHour: after }] : []),
        ...steps.filter((s) => s.from > to),
      ]
    }
  }
  return steps.filter((s, i) => i === 0 || s.perHour !== steps[i - 1]!.perHour)
}

/** The rate at a moment. */
export const rateAt = (steps: RateStep[], minute: number) => steps.findLast((s) => s.from <= minute)?.perHour ?? 0

/** The days that an act on one day is meant for. */
export type Reach = 'this day' | 'working days' | 'every day'
export function daysOf(day: number, reach: Reach): number[] {
  if (reach === 'every day') return [0, 1, 2, 3, 4, 5, 6]
  if (reach === 'working days') return day < 5 ? [0, 1, 2, 3, 4] : [5, 6]
  return [day]
}

export const hourOf = (minute: number) => Math.floor((minute % DAY) / 60)
