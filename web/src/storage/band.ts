import type { Ribbon } from '../api/types'

/** What a pool holds, drawn back from now: rates by the hour of an ordinary week, stacked, each until it is gone. */

/** How much wider the picture is than what is in it, so that its end is seen. */
export const MARGIN = 1.04

const HOURS = 168
const WEEK = 10_080
export const causes = ['base', 'motion', 'alarm'] as const
export type Cause = (typeof causes)[number]
type Hours = Record<Cause, Float64Array>

const known = new WeakMap<Ribbon, Hours>()

/** What a channel writes in each hour of the week, by cause, in kbit/s. */
export function hoursOf(ribbon: Ribbon): Hours {
  let hours = known.get(ribbon)
  if (hours) return hours
  hours = { base: new Float64Array(HOURS), motion: new Float64Array(HOURS), alarm: new Float64Array(HOURS) }
  const { ink } = ribbon
  ink.from?.forEach((from, i) => {
    const to = ink.from![i + 1] ?? WEEK
    for (let m = from; m < to;) {
      const hour = Math.floor(m / 60)
      const part = Math.min(to, (hour + 1) * 60) - m
      for (const cause of causes) hours![cause][hour]! += ((ink[cause]?.[i] ?? 0) * part) / 60
      m += part
    }
  })
  known.set(ribbon, hours)
  return hours
}

/** Some rates that are kept equally long. */
interface Part {
  kept: number // days
  rates: Float64Array
  mean: number
}

export interface Layer {
  id: string
  name: string
  parts: Part[]
  gigabytesPerDay: number
}

/** Adds rates to a layer, to the part of it that is kept as long. */
export function add(layer: Layer, kept: number, rates: Float64Array) {
  let part = layer.parts.find((p) => Math.abs(p.kept - kept) < 1e-6)
  if (!part) layer.parts.push((part = { kept, rates: new Float64Array(HOURS), mean: 0 }))
  for (let h = 0; h < HOURS; h++) part.rates[h]! += rates[h]!
  part.mean = part.rates.reduce((s, r) => s + r, 0) / HOURS
}

/** The step of the picture in days: an hour, a day or more, by how far back it goes. */
export const stepOf = (days: number) => (days < 8 ? 1 / 24 : days < 500 ? 1 : Math.ceil(days / 500))

/** Where something changes in the picture: at every step, and at every end of something kept. */
export function edgesOf(layers: Layer[], days: number): number[] {
  const step = stepOf(days)
  const edges = Array.from({ length: Math.ceil(days / step) + 1 }, (_, i) => Math.min(days, i * step))
  const ends = layers.flatMap((l) => l.parts.map((p) => p.kept)).filter((end) => end < days)
  return [...new Set([...edges, ...ends.slice(0, 1000)])].sort((a, b) => a - b)
}

/** The mean rate of a layer in the step that a moment lies in, in days back from Sunday midnight. */
function rateOf(layer: Layer, at: number, step: number): number {
  const first = Math.round(Math.floor(at / step + 1e-9) * step * 24)
  const hours = Math.round(step * 24)
  let sum = 0
  for (const { kept, rates, mean } of layer.parts) {
    if (kept <= at + 1e-9) continue
    let part = 0
    if (hours < HOURS) for (let h = first; h < first + hours; h++) part += rates[HOURS - 1 - (h % HOURS)]! / hours
    sum += hours < HOURS ? part : mean
  }
  return sum
}

/** Outlines of layers that lie on each other, bottom first: points of [days, kbit/s below, kbit/s above]. */
export function stack(layers: Layer[], edges: number[], step: number): [number, number, number][][] {
  const below = new Float64Array(edges.length)
  return layers.map((layer) => {
    const outline: [number, number, number][] = []
    for (let i = 0; i + 1 < edges.length; i++) {
      const [from, to] = [edges[i]!, edges[i + 1]!]
      const low = below[i]!
      const high = low + rateOf(layer, from, step)
      outline.push([from, low, high], [to, low, high])
      below[i] = high
    }
    return outline
  })
}
