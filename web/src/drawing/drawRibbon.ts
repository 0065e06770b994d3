import type { Duty, Ribbon } from '../api/types'
import { hatch } from './hatch'
import type { Palette } from '../theme/palette'
import { WEEK, type Span } from '../time/week'
import { growth } from '../ui/place'

export const RAIL = 2

export interface Canvas {
  context: CanvasRenderingContext2D
  width: number // css pixels
  height: number
  ratio: number // device pixels in a css pixel
  palette: Palette
  view: Span // the part of the week that is shown
}

/** Makes a canvas as large as its box in device pixels, empty, in css units. */
export function prepare(
  element: HTMLCanvasElement,
  width: number,
  height: number,
  palette: Palette,
  view: Span,
): Canvas {
  const ratio = (devicePixelRatio || 1) * growth(element)
  const [w, h] = [Math.round(width * ratio), Math.round(height * ratio)]
  if (element.width !== w || element.height !== h) {
    element.width = w
    element.height = h
  }
  const context = element.getContext('2d')!
  context.setTransform(ratio, 0, 0, ratio, 0, 0)
  context.clearRect(0, 0, width, height)
  // What is drawn asks for the view thousands of times: of what is watched each would be noted.
  return { context, width, height, ratio, palette, view: { from: view.from, to: view.to } }
}

export function x(c: Canvas, minute: number): number {
  return ((minute - c.view.from) / (c.view.to - c.view.from)) * c.width
}

/** Layers stacked upon each other, with their heights in css pixels from each moment to the next. */
export interface Layers {
  from: number[]
  base: number[]
  motion: number[]
  alarm: number[]
}

type Point = [number, number]

/**
 * The contour of one edge of a layer. Within a duty the heights run into each other; where a duty ends they step.
 * Each height is held over the middle of its stretch, so that a long stretch stays level.
 */
function contour(c: Canvas, from: number[], heights: number[], edges: Set<number>, floor: number): Point[] {
  const points: Point[] = []
  heights.forEach((h, i) => {
    const start = from[i]!
    const end = from[i + 1] ?? WEEK
    const ease = Math.min(15, (end - start) / 2)
    points.push([x(c, edges.has(start) ? start : start + ease), floor - h])
    points.push([x(c, edges.has(end) || end === WEEK ? end : end - ease), floor - h])
  })
  return points
}

/** Draws layers one upon the other above a floor, each told from the rest by its texture. */
export function drawLayers(c: Canvas, layers: Layers, edges: Set<number>, floor: number) {
  const zero = layers.base.map(() => 0)
  const base = layers.base
  const motion = base.map((b, i) => b + layers.motion[i]!)
  const alarm = motion.map((m, i) => m + layers.alarm[i]!)
  paintLayer(c, layers, zero, base, edges, floor, 'solid', c.palette.base)
  paintLayer(c, layers, base, motion, edges, floor, 'comb', c.palette.motion)
  paintLayer(c, layers, motion, alarm, edges, floor, 'diagonal', c.palette.alarm)
}

function paintLayer(
  c: Canvas,
  layers: Layers,
  lower: number[],
  upper: number[],
  edges: Set<number>,
  floor: number,
  texture: 'solid' | 'comb' | 'diagonal',
  color: string,
) {
  const thickest = upper.reduce((most, u, i) => Math.max(most, u - lower[i]!), 0)
  if (thickest <= 0) return
  const top = contour(c, layers.from, upper, edges, floor)
  const bottom = contour(c, layers.from, lower, edges, floor)
  const { context } = c
  context.beginPath()
  top.forEach(([px, py], i) => (i ? context.lineTo(px, py) : context.moveTo(px, py)))
  bottom.reverse().forEach(([px, py]) => context.lineTo(px, py))
  context.closePath()
  context.fillStyle = texture === 'solid' ? color : hatch(context, texture, color, c.ratio)
  context.fill()
  drawContour(c, top, lower, upper, color)
}

/** A crisp line along the top of a layer, where it has any ink: a hairline is all that a quiet night shows. */
function drawContour(c: Canvas, top: Point[], lower: number[], upper: number[], color: string) {
  const { context } = c
  context.beginPath()
  let drawing = false
  upper.forEach((u, i) => {
    const [a, b] = [top[2 * i]!, top[2 * i + 1]!]
    if (u - lower[i]! < 0.02) {
      drawing = false
      return
    }
    const lift = Math.min(0.5, u - lower[i]!) // keep the line inside the ink
    if (drawing) context.lineTo(a[0], a[1] + lift)
    else context.moveTo(a[0], a[1] + lift)
    context.lineTo(b[0], b[1] + lift)
    drawing = true
  })
  context.strokeStyle = color
  context.lineWidth = 1
  context.stroke()
}

/** The height of full ink, and where it stands. */
const inkOf = (c: Canvas, fullKbps: number) => {
  const floor = c.height - RAIL - 1
  return { floor, scale: (floor - 1) / Math.max(1, fullKbps) }
}

/** Draws the contour of the ink that was there, over what is in its place. */
export function drawGhost(c: Canvas, ribbon: Ribbon, fullKbps: number) {
  const { floor, scale } = inkOf(c, fullKbps)
  const { from, base, motion, alarm } = ribbon.ink
  const heights = base.map((b, i) => (b + motion[i]! + alarm[i]!) * scale)
  c.context.beginPath()
  contour(c, from, heights, new Set(ribbon.rail.map((r) => r.from)), floor).forEach(([px, py]) =>
    c.context.lineTo(px, py),
  )
  c.context.strokeStyle = c.palette.soft
  c.context.lineWidth = 1
  c.context.stroke()
}

/** Draws a channel's week: ink as high as its share of the full rate, and the rail of duties under it. */
export function drawRibbon(c: Canvas, ribbon: Ribbon, fullKbps: number, duties: Map<string, Duty>) {
  const { floor, scale } = inkOf(c, fullKbps)
  const edges = new Set(ribbon.rail.map((r) => r.from))
  const heights = (kbps: number[]) => kbps.map((k) => k * scale)
  const { from, base, motion, alarm } = ribbon.ink
  drawLayers(c, { from, base: heights(base), motion: heights(motion), alarm: heights(alarm) }, edges, floor)
  ribbon.rail.forEach((step, i) => {
    drawRail(c, duties.get(step.duty), { from: step.from, to: ribbon.rail[i + 1]?.from ?? WEEK })
  })
  for (const span of ribbon.deaf) drawDeaf(c, span, floor)
}

/** Rings hours in which the duty waits for motion that nothing reports; a span may run into the next week. */
function drawDeaf(c: Canvas, span: Span, floor: number) {
  const { context } = c
  const first = { from: span.from, to: WEEK }
  const parts = span.to > span.from ? [span] : [first, { from: 0, to: span.to }]
  context.strokeStyle = c.palette.short
  context.lineWidth = 1.5
  for (const p of parts) {
    const [left, right] = [x(c, p.from), x(c, p.to)]
    if (right > left) context.strokeRect(left + 1, 1, Math.max(1, right - left - 2), floor)
  }
}

/**
 * Draws what is decided over a span: event layer above, base layer below, both in the textures of the duty's swatch and
 * at half their tint, as what it costs is to outweigh it.
 */
export function drawRail(c: Canvas, duty: Duty | undefined, span: Span) {
  const { context } = c
  context.globalAlpha = 0.5
  drawDecided(c, duty, span)
  context.globalAlpha = 1
}

function drawDecided(c: Canvas, duty: Duty | undefined, span: Span) {
  const { context, palette } = c
  const [left, right] = [Math.round(x(c, span.from)), Math.round(x(c, span.to))]
  const top = c.height - RAIL
  if (!duty?.base && !duty?.event) {
    context.fillStyle = palette.soft
    for (let at = left; at < right; at += 4) context.fillRect(at, c.height - 1, 1, 1)
    return
  }
  const half = duty.base && duty.event ? RAIL / 2 : RAIL
  if (duty.event) {
    // Motion is a comb and alarm in dashes, so that they differ without colour too.
    const fills = duty.event.on.map((cause) =>
      cause === 'alarm'
        ? hatch(context, 'diagonal', palette.alarm, c.ratio)
        : hatch(context, 'comb', palette.motion, c.ratio),
    )
    const piece = fills.length > 1 ? 6 : right - left // both take turns
    for (let at = left, i = 0; at < right; at += piece, i++) {
      context.fillStyle = fills[i % fills.length]!
      context.fillRect(at, top, Math.min(piece, right - at), half)
    }
  }
  if (duty.base) {
    context.fillStyle = palette.base
    if (duty.base.keyframesOnly) {
      for (let at = left; at < right; at += 5) context.fillRect(at, c.height - half, Math.min(3, right - at), half)
    } else {
      const low = duty.base.stream !== 'main' ? 1 : half
      context.fillRect(left, c.height - low, right - left, low)
    }
  }
}

/** Draws an event of mean length to scale, with the seconds kept before and after it, in minutes. */
export function drawAround(
  c: Canvas,
  { at, pre, length, post }: { at: number; pre: number; length: number; post: number },
) {
  const { context, palette } = c
  const y = 3.5
  const [a, b, d, e] = [x(c, at - pre), x(c, at), x(c, at + length), x(c, at + length + post)]
  context.fillStyle = palette.ink
  context.globalAlpha = 0.85
  context.fillRect(b, y - 2, Math.max(1.5, d - b), 4)
  context.globalAlpha = 1
  context.strokeStyle = palette.ink
  context.lineWidth = 1
  context.beginPath()
  for (const [from, to, end] of [
    [a, b, a],
    [d, e, e],
  ] as const) {
    context.moveTo(from, y)
    context.lineTo(to, y)
    context.moveTo(Math.round(end) + 0.5, y - 3)
    context.lineTo(Math.round(end) + 0.5, y + 3)
  }
  context.stroke()
}
