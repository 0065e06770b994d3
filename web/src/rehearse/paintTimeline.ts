import type { Played, PlayedChannel } from '../api/types'
import { asRead } from '../habits/now'
import type { Palette } from '../theme/palette'
import { clockOf, dayName, secondsOf } from './clock'
import { drawName, drawRow, NAMES, ROW, STEPS, xOf, type Scale } from './drawTimeline'
import { rowAt } from './folding'

export const HEAD = 34 // days and hours above the rows

/** All that a timeline shows, wherever it is drawn. */
export interface Sheet {
  data: Played
  rows: PlayedChannel[]
  tops: number[] // where each row begins below the head, and where the last one ends
  scale: Scale
  palette: Palette
  shows: (fate: number) => boolean
  pointed?: number
  asked?: string // the channel that is asked about
  turned?: Map<string, 'kept' | 'lost'>
  nameOf: (row: number) => string
  groupOf: (row: number) => string
}

function clipped(c: CanvasRenderingContext2D, [x, y, w, h]: [number, number, number, number], draw: () => void) {
  c.save()
  c.beginPath()
  c.rect(x, y, w, h)
  c.clip()
  draw()
  c.restore()
}

/** Draws the days along the top and the rows from a scrolled height on, as many as there is room for. */
export function paintTimeline(c: CanvasRenderingContext2D, sheet: Sheet, scrolled: number, height: number) {
  const { data, rows, tops, scale: s, palette: p } = sheet
  c.font = `12px ${getComputedStyle(document.body).fontFamily}`
  const first = Math.max(0, rowAt(tops, scrolled))
  const last = Math.min(rows.length, rowAt(tops, scrolled + height) + 1)
  const highOf = (k: number) => tops[k + 1]! - tops[k]!
  clipped(c, [NAMES, 0, s.width, height], () => {
    c.translate(NAMES, 0)
    paintDays(c, data, s, p, height)
    clipped(c, [0, HEAD, s.width, height], () => {
      for (let k = first; k < last; k++) {
        const top = HEAD + tops[k]! - scrolled
        const isPointed = sheet.pointed !== undefined && rows[k]!.event.includes(sheet.pointed)
        if (isPointed || rows[k]!.id === sheet.asked) {
          c.fillStyle = p.selected
          c.fillRect(0, top, s.width, highOf(k))
        }
        c.fillStyle = p.rule
        c.fillRect(0, top + highOf(k) - 1, s.width, 1)
        if (highOf(k) === ROW) drawRow(c, rows[k]!, top, s, p, sheet.shows, sheet.pointed, sheet.turned)
      }
    })
  })
  clipped(c, [0, HEAD, NAMES - 6, height], () => {
    for (let k = first; k < last; k++)
      drawName(c, sheet.nameOf(k), sheet.groupOf(k), HEAD + tops[k]! - scrolled, p, highOf(k) < ROW)
  })
}

function paintDays(c: CanvasRenderingContext2D, data: Played, s: Scale, p: Palette, height: number) {
  for (const day of data.days) {
    const [left, right] = [xOf(s, day.from), xOf(s, day.from + day.hours * 3600)]
    if (right < 0 || left > s.width) continue
    // Night, from ten to six.
    c.fillStyle = p.ink
    c.globalAlpha = 0.05
    c.fillRect(left, HEAD, xOf(s, secondsOf(day, 6 * 3600)) - left, height)
    const evening = xOf(s, secondsOf(day, 22 * 3600))
    c.fillRect(evening, HEAD, right - evening, height)
    c.globalAlpha = 1
    c.fillStyle = p.rule
    c.fillRect(left, 0, 1, height)
    c.fillStyle = day.special ? p.alarm : p.ink
    const odd = day.hours === 24 ? '' : `, ${day.hours} h`
    const text = `${dayName(day.date)}${day.special ? `, ${day.special}` : ''}${odd}`
    const room = right - Math.max(0, left)
    if (room > 20) c.fillText(room > 74 ? text : text.slice(0, 3), Math.max(4, left + 4), 13, Math.max(20, room - 6))
  }
  const step = STEPS.find((k) => (k / (s.to - s.from)) * s.width > 62) ?? 86400
  c.fillStyle = p.soft
  if (step < 86400)
    for (let at = Math.ceil(s.from / step) * step; at < s.to; at += step) {
      const x = xOf(s, at)
      c.fillRect(x, HEAD - 6, 1, 6)
      c.fillText(asRead(clockOf(data, at).slice(0, step < 60 ? 8 : 5)), x + 3, HEAD - 7)
    }
}
