import type { SiteWalk, WalkCamera, WalkLikely, WalkSeen } from '../api/types'

// What is likely after what was seen, told on the phone as the core tells it (core/walktest): there may be no network,
// and whoever stands in the yard cannot wait. A test holds the two against each other; the server's answer counts.

const tapSeconds = 0.7
const readSeconds = 0.5
const freeSeconds = 2
const slip = 0.02
const misread = 1 / 120

type Shown = readonly (number | null)[]
type Time = number | null | undefined

const normal = (x: number, deviation: number) =>
  Math.exp((-x * x) / (2 * deviation * deviation)) / (deviation * Math.sqrt(2 * Math.PI))

/** The chance of reading a time, or that there is none, if want is what there is. */
function read(told: Time, none: boolean | undefined, want: Time, deviation: number): number {
  if (told == null) return none ? (want == null ? 1 - slip : slip) : 1
  if (want == null) return slip * misread
  return (1 - slip) * normal(told - want, deviation) + slip * misread
}

const since = (t: Time, from: Time) => (t == null || from == null ? undefined : t - from)

function likelihood(w: SiteWalk, misses: number, fault: string, want: Shown, s: WalkSeen): number {
  if (fault === 'else') return anything(s)
  let [first, last, tap, ends]: [Time, Time, number, number] = [s.first, s.last, tapSeconds, readSeconds]
  if (w.free) {
    tap = Math.hypot(tapSeconds, freeSeconds)
    ends = Math.hypot(tapSeconds, readSeconds)
    first = since(s.first, s.sign)
    last = since(s.last, s.out)
  }
  const of = (want: Shown) => {
    const sign = read(s.sign, s.noSign, want[0], tap)
    if (s.noShot) return sign * read(undefined, true, want[1], ends)
    return sign * read(first, false, want[1], ends) * read(last, false, want[2], ends)
  }
  if (want[0] == null && want[1] == null) return of(want)
  return (1 - misses) * of(want) + misses * of([null, null, null])
}

function anything(s: WalkSeen): number {
  let chance = s.sign != null ? 0.5 * misread : s.noSign ? 0.5 : 1
  if (s.noShot) return chance * 0.5
  if (s.first != null) chance *= misread
  if (s.last != null) chance *= misread
  return chance
}

/** The situation at a minute of the week. */
export function situationAt(c: WalkCamera, minute: number): number {
  let at = 0
  for (const s of c.week) if (s.from <= minute) at = s.situation
  return at
}

const divided = (list: number[]) => {
  const all = list.reduce((a, b) => a + b, 0)
  return all > 0 ? list.map((x) => x / all) : list
}

/** The chance of every case after what was seen. */
export function posterior(c: WalkCamera, list: WalkSeen[]): number[] {
  return divided(
    c.cases.map((k, i) =>
      list.reduce((chance, s) => {
        const w = c.walks.find((w) => w.id === s.walk)
        if (!w) return chance
        return chance * likelihood(w, c.misses, k.fault, w.shows[situationAt(c, s.minute)]![i]!, s)
      }, k.weight),
    ),
  )
}

function byFault(c: WalkCamera, faults: string[], chances: number[]): number[] {
  const out = faults.map(() => 0)
  c.cases.forEach((k, i) => (out[faults.indexOf(k.fault)]! += chances[i]!))
  return out
}

/** What is likely, the likeliest first: all above a chance, and at least one. */
export function judge(c: WalkCamera, list: WalkSeen[], faults: string[], told: number): WalkLikely[] {
  const chances = posterior(c, list)
  const out = byFault(c, faults, chances).flatMap((chance, f): WalkLikely[] => {
    let best = -1
    c.cases.forEach((k, i) => {
      if (k.fault === faults[f] && (best < 0 || chances[i]! > chances[best]!)) best = i
    })
    if (best < 0) return []
    const k = c.cases[best]!
    return [{ fault: k.fault, chance, words: k.words, case: best }]
  })
  out.sort((a, b) => b.chance - a.chance)
  return out.filter((l, i) => i === 0 || l.chance >= told)
}

const entropy = (list: number[]) => list.reduce((h, p) => (p > 0 ? h - p * Math.log2(p) : h), 0)
const considered = 24

/** What is seen of what a walk shows, without an error. */
function wouldSee(w: SiteWalk, minute: number, shown: Shown): WalkSeen {
  const [sign, first, last] = shown
  const seen: WalkSeen = { walk: w.id, minute }
  if (sign == null) seen.noSign = true
  else seen.sign = sign
  if (first == null) seen.noShot = true
  else if (w.free && sign != null) Object.assign(seen, { first: sign + first, last: 20 + last! })
  else Object.assign(seen, { first, last })
  if (w.free) seen.out = 20
  return seen
}

/** The walk after which the faults are expected to be surest; nothing where none tells a twentieth of a bit. */
export function nextWalk(c: WalkCamera, list: WalkSeen[], faults: string[], minute: number): SiteWalk | undefined {
  const chances = posterior(c, list)
  const now = entropy(byFault(c, faults, chances))
  const order = chances
    .map((_, i) => i)
    .sort((a, b) => chances[b]! - chances[a]!)
    .slice(0, considered)
  const at = situationAt(c, minute)
  let best: SiteWalk | undefined
  let most = 0.05
  for (const w of c.walks) {
    let expected = 0
    let all = 0
    for (const truth of order) {
      if (c.cases[truth]!.fault === 'else') continue
      const seen = wouldSee(w, minute, w.shows[at]![truth]!)
      const then = divided(
        chances.map((p, j) => p * likelihood(w, c.misses, c.cases[j]!.fault, w.shows[at]![j]!, seen)),
      )
      expected += chances[truth]! * entropy(byFault(c, faults, then))
      all += chances[truth]!
    }
    if (all > 0 && now - expected / all > most + 1e-9) {
      most = now - expected / all
      best = w
    }
  }
  return best
}
