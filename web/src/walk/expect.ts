import type { SiteWalk, WalkCamera, WalkExpectation, WalkRecord, WalkSaid } from '../api/types'
import { situationAt } from './judge'
import { seconds } from './moment'

export const expectationOf = (c: WalkCamera, w: SiteWalk, minute: number): WalkExpectation =>
  w.expected[situationAt(c, minute)]!

/** What is expected of a walk, a line each: what, when, and how it is said aloud. */
export function expected(w: SiteWalk, e: WalkExpectation): { what: string; when: string }[] {
  const [sign, first, last] = e.shown
  const out = [
    {
      what: 'Sign',
      when:
        sign == null
          ? 'none should come'
          : w.free
            ? `${seconds(sign)} after you are in view`
            : `${seconds(sign)} after the start`,
    },
  ]
  const mark = e.always ? 'Mark in the footage' : 'Footage'
  if (first == null || last == null)
    out.push({ what: mark, when: e.always ? 'none; footage is written all the time' : 'none' })
  else if (w.free)
    out.push(
      { what: `${mark} begins`, when: first === 0 ? 'with the sign' : `${seconds(-first)} before the sign` },
      { what: `${mark} ends`, when: `${seconds(last)} after you are out of view` },
    )
  else
    out.push(
      {
        what: `${mark} begins`,
        when: first < 0 ? `${seconds(-first)} before the start` : `${seconds(first)} after the start`,
      },
      { what: `${mark} ends`, when: `${seconds(last)} after the start` },
    )
  return out
}

/** The same, said aloud. */
export const aloud = (w: SiteWalk, e: WalkExpectation) =>
  [w.name + '.', w.do, e.words ?? '', ...expected(w, e).map((l) => `${l.what}: ${l.when}.`)].join(' ')

/** What was seen of a walk against what was expected, a row each. */
export function against(
  said: WalkSaid,
  free: boolean,
): { what: string; planned: string; seen: string; differs: boolean }[] {
  const text = (s: number | null | undefined, none?: boolean) => (s == null ? (none ? 'none' : '–') : seconds(s))
  const minus = (a?: number, b?: number) => (a == null || b == null ? undefined : a - b)
  const rows = [
    { what: 'sign', planned: said.planned[0], seen: said.sign, none: said.noSign, error: free ? 6.4 : 2.1 },
    {
      what: free ? 'footage before the sign' : 'footage begins',
      planned: said.planned[1],
      seen: free ? minus(said.first, said.sign) : said.first,
      none: said.noShot,
      error: free ? 2.6 : 1.5,
    },
    {
      what: free ? 'footage after you were gone' : 'footage ends',
      planned: said.planned[2],
      seen: free ? minus(said.last, said.out) : said.last,
      none: said.noShot,
      error: free ? 2.6 : 1.5,
    },
  ]
  return rows.map(({ what, planned, seen, none, error }) => ({
    what,
    planned: text(planned, true),
    seen: text(seen, none),
    differs:
      seen == null && !none
        ? false
        : (seen == null) !== (planned == null) || Math.abs((seen ?? 0) - (planned ?? 0)) > error,
  }))
}

/** Whether a record is of what is expected now. */
export function holds(c: WalkCamera, r: WalkRecord): boolean {
  const w = r.walk && c.walks.find((w) => w.id === r.walk!.walk)
  return !!w && expectationOf(c, w, r.walk!.minute).key === r.walk!.key
}

/** Records of walks that count: of what is expected now, that can be, after the last mending. */
export function counting(c: WalkCamera, records: WalkRecord[]): WalkRecord[] {
  const mended = Math.max(0, ...records.map((r) => (r.decision?.what === 'again' ? Date.parse(r.at!) : 0)))
  return records.filter((r) => {
    const s = r.walk
    if (!s || !holds(c, r) || Date.parse(r.at!) <= mended) return false
    return !(s.first != null && s.last != null && s.last < s.first) && !(s.sign != null && (s.sign < 0 || s.noSign))
  })
}

/** How far a camera is: how many of its walks are walked, of how many. */
export function progress(c: WalkCamera, records: WalkRecord[]): { walked: number; of: number } {
  const done = new Set(counting(c, records).map((r) => r.walk!.walk))
  const needed = c.walks.filter((w) => !w.optional)
  return { walked: needed.filter((w) => done.has(w.id)).length, of: needed.length }
}
