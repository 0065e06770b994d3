import type { Hours } from '../api/types'
import { clock, DAY, dayOf, WEEK, weekdays, type Span } from './week'

/*
 * What a stroke means, worked out here too so that it is drawn before the server has answered. The core decides; a test
 * runs both on the same cases. Nothing else of the job is worked out in the page.
 */

/** What a drag over several days means. */
export type DragMeans = 'each day' | 'right through'

/**
 * The hours that a drag from one moment to another means. "Each day" takes the times of day at its ends for
 * every day between them, so that Tuesday 06:00 to Friday 22:00 leaves the nights alone; "right through" takes
 * every minute.
 */
export function hoursOf(drag: Span, means: DragMeans): Hours[] {
  const first = dayOf(drag.from)
  const last = dayOf(drag.to - 1)
  const from = drag.from - first * DAY
  const to = drag.to - last * DAY
  const days = (a: number, b: number) => weekdays.slice(a, b + 1)
  if (first === last) return [{ days: days(first, last), from: clock(from), to: clock(to) }]
  if (means === 'each day' && from !== to) {
    return [{ days: days(first, from < to ? last : last - 1), from: clock(from), to: clock(to) }]
  }
  const hours: Hours[] = [{ days: days(first, first), from: clock(from), to: '24:00' }]
  if (last - first > 1) hours.push({ days: days(first + 1, last - 1), from: '00:00', to: '24:00' })
  hours.push({ days: days(last, last), from: '00:00', to: clock(to) })
  return hours
}

/** The stretches of the week that hours cover. */
export function spansOf(hours: Hours[]): Span[] {
  const minutes = (text: string) => Number(text.slice(0, 2)) * 60 + Number(text.slice(3))
  return hours.flatMap((h) =>
    (h.days?.length ? h.days : weekdays).flatMap((d) => {
      const start = weekdays.indexOf(d) * DAY
      const from = start + minutes(h.from)
      const to = start + minutes(h.to) + (minutes(h.to) <= minutes(h.from) ? DAY : 0)
      return to > WEEK
        ? [
            { from, to: WEEK },
            { from: 0, to: to - WEEK },
          ]
        : [{ from, to }]
    }),
  )
}

/** A value that holds from a minute of the week on. */
export interface Step<T> {
  from: number
  value: T
}

/** Steps with a value painted over spans. */
export function paintedOver<T>(steps: Step<T>[], spans: Span[], value: T): Step<T>[] {
  let out = steps
  for (const { from, to } of spans) {
    const after = valueAt(out, to)
    out = [
      ...out.filter((s) => s.from < from),
      { from, value },
      ...(to < WEEK && after !== undefined ? [{ from: to, value: after }] : []),
      ...out.filter((s) => s.from > to),
    ]
  }
  return out.filter((s, i) => i === 0 || s.value !== out[i - 1]!.value)
}

/** The value at a minute, if there are steps. */
export const valueAt = <T>(steps: Step<T>[], minute: number) => steps.findLast((s) => s.from <= minute)?.value
