/** A point of a curve: days kept, and what is lost for them. */
interface Point {
  days: number
  lostPerDay: number
}

/**
 * The point from which a curve turns up: the one farthest below the straight line from its first point to its last,
 * where a day beyond it costs at least three times what a day before it does. None where no point stands out.
 */
export function kneeOf<P extends Point>(points: P[]): P | undefined {
  const [first, last] = [points[0], points.at(-1)]
  if (!first || !last || points.length < 3 || last.days <= first.days) return undefined
  const slope = (last.lostPerDay - first.lostPerDay) / (last.days - first.days)
  const below = (p: P) => first.lostPerDay + slope * (p.days - first.days) - p.lostPerDay
  const knee = points.reduce((a, b) => (below(b) > below(a) ? b : a))
  const before = (knee.lostPerDay - first.lostPerDay) / (knee.days - first.days)
  const beyond = (last.lostPerDay - knee.lostPerDay) / (last.days - knee.days)
  return knee !== first && knee !== last && beyond > 3 * Math.max(before, 1e-9) ? knee : undefined
}
