import type { PlayedChannel } from '../api/types'
import type { Palette } from '../theme/palette'
import { FULL, LOW, MISSED, OTHER } from './rows'

export const ROW = 28
export const NAMES = 148 // the column of names
export const EVENTS = 12 // how far down a row events are meant, and below it footage
const INK = 11 // height of the footage
const DOTS = 11 // where events stand
const BIN = 2 // pixels across, closer than which events are counted in place of drawn

/** Steps between the times along the top, so that they have room. */
export const STEPS = [1, 5, 10, 30, 60, 300, 900, 1800, 3600, 3 * 3600, 6 * 3600, 12 * 3600, 86400]

export interface Scale {
  from: number
  to: number
  width: number
}
export const xOf = (s: Scale, at: number) => ((at - s.from) / (s.to - s.from)) * s.width

/** The first place in a sorted list that is not below a value. */
export function firstFrom(list: number[], value: number): number {
  let [low, high] = [0, list.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (list[middle]! < value) low = middle + 1
    else high = middle
  }
  return low
}

/** Draws a channel's row: its footage by layer, told by mark and colour, and its events above. */
export function drawRow(
  c: CanvasRenderingContext2D,
  channel: PlayedChannel,
  top: number,
  s: Scale,
  p: Palette,
  shows: (fate: number) => boolean,
  pointed?: number,
  turned?: Map<string, 'kept' | 'lost'>,
) {
  const floor = top + ROW - 4
  const ceiling = floor - INK
  const first = firstFrom(channel.to, s.from)
  for (let k = first; k < channel.from.length && channel.from[k]! < s.to; k++) {
    const left = Math.max(0, xOf(s, channel.from[k]!))
    const wide = Math.max(0.7, Math.min(s.width, xOf(s, channel.to[k]!)) - left)
    drawLayer(c, channel.layer[k]!, left, ceiling, wide, floor, p)
  }
  for (let k = 0; k + 1 < channel.away.length; k += 2) {
    const left = Math.max(0, xOf(s, channel.away[k]!))
    const right = Math.min(s.width, xOf(s, channel.away[k + 1]!))
    if (right <= left) continue
    c.strokeStyle = p.short
    c.strokeRect(left + 0.5, ceiling - 1.5, Math.max(1, right - left), INK + 3)
  }
  const begin = firstFrom(channel.start, s.from - 3600)
  if (BIN * (firstFrom(channel.start, s.to) - begin) > s.width) {
    drawDensity(c, channel, begin, top, s, p, shows)
    return
  }
  let last = -9
  for (let k = begin; k < channel.start.length && channel.start[k]! < s.to; k++) {
    const fate = channel.fate[k]!
    if (!shows(fate)) continue
    const x = xOf(s, channel.start[k]!)
    const other = turned?.size ? turned.get(`${channel.id} ${channel.start[k]!}`) : undefined
    if (other) triangle(c, x, top + DOTS + 2, other === 'kept', p)
    // Where many stand in one place, those that were missed are drawn, and one of the others.
    if (x - last < 1.2 && fate !== MISSED && channel.event[k] !== pointed) continue
    last = x
    drawMark(c, fate, x, top + DOTS, Math.max(1, (channel.length[k]! / (s.to - s.from)) * s.width), p)
    if (channel.event[k] === pointed) {
      c.strokeStyle = p.ink
      c.lineWidth = 1.5
      c.beginPath()
      c.arc(x, top + DOTS - 5, 6, 0, 7)
      c.stroke()
      c.lineWidth = 1
    }
  }
}

/** Where events stand closer than can be told apart: how many there are, and how many of them were missed. */
function drawDensity(
  c: CanvasRenderingContext2D,
  channel: PlayedChannel,
  begin: number,
  top: number,
  s: Scale,
  p: Palette,
  shows: (fate: number) => boolean,
) {
  const bins = Math.ceil(s.width / BIN)
  const all = new Array<number>(bins).fill(0)
  const missed = new Array<number>(bins).fill(0)
  for (let k = begin; k < channel.start.length && channel.start[k]! < s.to; k++) {
    const bin = Math.floor(xOf(s, channel.start[k]!) / BIN)
    if (bin < 0 || bin >= bins || !shows(channel.fate[k]!)) continue
    all[bin]!++
    if (channel.fate[k] === MISSED) missed[bin]!++
  }
  const most = Math.max(1, ...all)
  all.forEach((n, bin) => {
    if (!n) return
    const high = 1 + (8 * n) / most
    c.fillStyle = p.soft
    c.fillRect(bin * BIN, top + DOTS - high, BIN - 0.4, high)
    if (!missed[bin]) return
    c.fillStyle = p.short
    c.fillRect(bin * BIN, top + DOTS - high, BIN, Math.max(2, (high * missed[bin]!) / n))
  })
}

/** Writes a row's name, below that of the group that begins with it; of a folded row in what is secondary. */
export function drawName(
  c: CanvasRenderingContext2D,
  name: string,
  group: string,
  top: number,
  p: Palette,
  folded = false,
) {
  const under = folded ? 10 : 18
  c.fillStyle = folded ? p.soft : p.ink
  c.fillText(name, 6, top + (group ? (folded ? 22 : 24) : under), NAMES - 12)
  c.fillStyle = p.soft
  if (group) c.fillText(group, 6, top + 11, NAMES - 12)
}

/** An event that turned out otherwise before: upwards where it is kept now, downwards where it is lost. */
function triangle(c: CanvasRenderingContext2D, x: number, y: number, up: boolean, p: Palette) {
  c.fillStyle = up ? p.motion : p.short
  c.beginPath()
  c.moveTo(x - 4, up ? y + 3 : y - 3)
  c.lineTo(x + 4, up ? y + 3 : y - 3)
  c.lineTo(x, up ? y - 4 : y + 4)
  c.fill()
}

/** Footage of a layer: base, its own events, others’ and alarms, a button. */
export function drawLayer(
  c: CanvasRenderingContext2D,
  kind: number,
  x: number,
  top: number,
  wide: number,
  floor: number,
  p: Palette,
) {
  if (kind === 0) {
    c.fillStyle = p.base
    c.fillRect(x, floor - 5, wide, 5)
    return
  }
  c.fillStyle = kind === 1 ? p.motion : kind === 2 ? p.alarm : p.ink
  if (wide < 4) {
    c.fillRect(x, top, wide, floor - top)
    return
  }
  // Combs stand for events of its own, slanting ones for others', a full band for a button.
  c.globalAlpha = 0.28
  c.fillRect(x, top, wide, floor - top)
  c.globalAlpha = 1
  c.fillRect(x, top, wide, 1.5)
  if (kind === 3) {
    c.fillRect(x, floor - 3, wide, 3)
    return
  }
  c.save()
  c.beginPath()
  c.rect(x, top, wide, floor - top)
  c.clip()
  c.strokeStyle = c.fillStyle
  c.beginPath()
  const slant = kind === 2 ? 6 : 0
  for (let at = Math.floor(x / 4) * 4 - slant; at < x + wide; at += 4) {
    c.moveTo(at + 0.5, floor)
    c.lineTo(at + 0.5 + slant, top)
  }
  c.stroke()
  c.restore()
}

/**
 * An event: hollow where it was missed, half where it is kept low, full where in full; a short tick where unwanted; in
 * the colour of alarms where it is no motion.
 */
export function drawMark(c: CanvasRenderingContext2D, fate: number, x: number, y: number, wide: number, p: Palette) {
  if (fate === OTHER) {
    c.fillStyle = p.alarm
    c.fillRect(x, y - 9, Math.min(Math.max(2, wide), 400), 9)
    return
  }
  if (fate > FULL) {
    c.fillStyle = p.soft
    c.fillRect(x, y - (fate === 4 ? 5 : 3), 1, fate === 4 ? 5 : 3)
    return
  }
  c.fillStyle = c.strokeStyle = fate === MISSED ? p.short : p.ink
  if (fate === MISSED) {
    c.lineWidth = 1.4
    c.beginPath()
    c.arc(x, y - 5, 3.4, 0, 7)
    c.stroke()
    c.lineWidth = 1
  } else {
    c.fillRect(x, y - (fate === LOW ? 5 : 9), Math.min(Math.max(1.2, wide), 400), fate === LOW ? 2 : 9)
    if (fate === LOW) c.fillRect(x, y - 9, 1.2, 9)
  }
}
