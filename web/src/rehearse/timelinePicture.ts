import { drawLayer, drawMark, NAMES } from './drawTimeline'
import { rowAt } from './folding'
import { HEAD, paintTimeline, type Sheet } from './paintTimeline'
import { FULL, LOW, MISSED, OTHER } from './rows'

const TITLE = 52
const LEGEND = 34
const TALLEST = 16_000 // pixels that any browser draws

/** The stretch of time that a timeline shows as a picture to hand on: titled, with a legend, and with all its rows. */
export function timelinePicture(sheet: Sheet, title: string, under: string): string {
  const shown = Math.min(sheet.rows.length, rowAt(sheet.tops, TALLEST - TITLE - HEAD - LEGEND))
  const width = NAMES + sheet.scale.width
  const rows = HEAD + sheet.tops[shown]!
  const height = TITLE + rows + LEGEND
  const ratio = Math.max(1, Math.min(devicePixelRatio || 1, TALLEST / height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width * ratio)
  canvas.height = Math.round(height * ratio)
  const c = canvas.getContext('2d')!
  const font = getComputedStyle(document.body).fontFamily
  const p = sheet.palette
  c.scale(ratio, ratio)
  c.fillStyle = getComputedStyle(document.documentElement).getPropertyValue('--sheet')
  c.fillRect(0, 0, width, height)
  c.fillStyle = p.ink
  c.font = `600 16px ${font}`
  c.fillText(title, 6, 21, width - 12)
  c.font = `12px ${font}`
  c.fillStyle = p.soft
  const rest = sheet.rows.length - shown
  c.fillText(rest ? `${under} · ${rest} more rows are not shown` : under, 6, 40, width - 12)
  c.translate(0, TITLE)
  paintTimeline(c, { ...sheet, rows: sheet.rows.slice(0, shown), pointed: undefined, asked: undefined }, 0, rows)
  c.translate(0, rows + 12)
  let x = 6
  for (const [draw, words] of [
    [(at: number) => drawLayer(c, 0, at, 0, 18, 12, p), 'base'],
    [(at: number) => drawLayer(c, 1, at, 0, 18, 12, p), 'its own events'],
    [(at: number) => drawLayer(c, 2, at, 0, 18, 12, p), 'others’ events, alarms'],
    [(at: number) => drawLayer(c, 3, at, 0, 18, 12, p), 'a button'],
    [(at: number) => drawMark(c, FULL, at + 8, 12, 4, p), 'kept in full'],
    [(at: number) => drawMark(c, LOW, at + 6, 12, 8, p), 'kept low'],
    [(at: number) => drawMark(c, MISSED, at + 9, 12, 1, p), 'missed'],
    [(at: number) => drawMark(c, OTHER, at + 8, 12, 4, p), 'an alarm'],
  ] as const) {
    draw(x)
    c.fillStyle = p.soft
    c.fillText(words, x + 23, 11)
    x += 23 + c.measureText(words).width + 16
  }
  return canvas.toDataURL('image/png')
}
