/*
 * A week that begins with another day than Monday. The server counts minutes and hours from Monday; here what it
 * answers is turned, so that all that is drawn counts from the day the reader begins with. Days by their names need
 * none of it.
 */

const WEEK = 10_080

interface Span {
  from: number
  to: number
}

/** The minute of the shown week. */
export const minuteTurned = (minute: number, by: number) => (minute - by + WEEK) % WEEK

/** Stretches, those that run over the end of the shown week in two. */
export function spansTurned<T extends Span>(spans: T[], by: number): T[] {
  return spans
    .flatMap((s) => {
      const from = minuteTurned(s.from, by)
      const to = from + ((s.to - s.from + WEEK) % WEEK || WEEK)
      return to > WEEK
        ? [
            { ...s, from, to: WEEK },
            { ...s, from: 0, to: to - WEEK },
          ]
        : [{ ...s, from, to }]
    })
    .sort((a, b) => a.from - b.from)
}

/** Steps, each of which holds until the next; those beside each other that say the same become one. */
export function stepsTurned<T extends { from: number }>(steps: T[], by: number): T[] {
  if (!steps.length) return steps
  const at = steps.findLastIndex((s) => s.from <= by)
  const order = [...steps.slice(at), ...steps.slice(0, at + 1)]
  const same = (a: T, b: T) => JSON.stringify({ ...a, from: 0 }) === JSON.stringify({ ...b, from: 0 })
  return order
    .map((s, i) => ({ ...s, from: i ? minuteTurned(s.from, by) : 0 }))
    .filter((s, i, all) => (i === 0 || s.from > 0) && (i === 0 || !same(s, all[i - 1]!)))
}

/** Columns of steps: the minutes from which on they hold, and what each holds. */
export function columnsTurned(columns: Record<string, number[]>, by: number): Record<string, number[]> {
  const members = Object.keys(columns)
  const rows = (columns.from ?? []).map((_, i) => Object.fromEntries(members.map((m) => [m, columns[m]![i]!])))
  const turned = stepsTurned(rows as unknown as { from: number }[], by) as unknown as Record<string, number>[]
  return Object.fromEntries(members.map((m) => [m, turned.map((row) => row[m]!)]))
}

/** What holds an entry an hour or a half hour of the week. */
export function listTurned<T>(list: T[], by: number): T[] {
  const at = (by * list.length) / WEEK
  return [...list.slice(at), ...list.slice(0, at)]
}

/** Every list of an entry an hour that is anywhere in something. */
function everyHour(value: unknown, by: number): unknown {
  if (Array.isArray(value)) {
    const isByHour = value.length === 168 && typeof value[0] !== 'object'
    return isByHour ? listTurned(value, by) : value.map((v) => everyHour(v, by))
  }
  if (!value || typeof value !== 'object') return value
  return Object.fromEntries(Object.entries(value).map(([name, v]) => [name, everyHour(v, by)]))
}

/** A list, where what is in it looks as expected: other things have members of the same names. */
const listOf =
  <T>(member: string, turn: (list: T[], by: number) => unknown) =>
  (value: unknown, by: number) =>
    Array.isArray(value) && typeof value[0] === 'object' && member in value[0] ? turn(value as T[], by) : value
const halfHours = (value: unknown, by: number) =>
  Array.isArray(value) && value.length === 336 ? listTurned(value, by) : value
const steps = listOf<{ from: number }>('from', stepsTurned)

/** Members of answers that count from Monday, by their names. */
export const members: Record<string, (value: unknown, by: number) => unknown> = {
  rail: steps,
  after: steps,
  steps,
  ink: (value, by) => columnsTurned(value as Record<string, number[]>, by),
  deaf: listOf<Span>('to', spansTurned),
  spans: listOf<Span>('to', spansTurned),
  stretches: listOf<Span>('duty', spansTurned),
  busiestAt: (value, by) => minuteTurned(value as number, by),
  base: halfHours,
  motion: halfHours,
  alarm: halfHours,
  hours: everyHour,
  copy: everyHour,
}

/** An answer as one counts it whose week begins so many minutes after Monday 00:00. */
export function turned(answer: unknown, by: number): unknown {
  if (Array.isArray(answer)) return answer.map((v) => turned(v, by))
  if (!answer || typeof answer !== 'object') return answer
  return Object.fromEntries(
    Object.entries(answer).map(([name, v]) => [name, v && members[name] ? members[name](v, by) : turned(v, by)]),
  )
}
