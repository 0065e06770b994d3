import type { Tide } from '../api/types'
import { drawLayers, type Canvas } from './drawRibbon'

/** Draws what is written together, stacked by cause, with its mean and what the recorders take in as lines. */
export function drawTide(c: Canvas, tide: Tide, top: number) {
  const floor = c.height - 1
  const scale = (floor - 4) / top
  const heights = (mbps: number[]) => mbps.map((m) => m * scale)
  const from = tide.base.map((_, i) => i * 30)
  const layers = { from, base: heights(tide.base), motion: heights(tide.motion), alarm: heights(tide.alarm) }
  drawLayers(c, layers, new Set(), floor)
  const line = (mbps: number, color: string, dash: number[]) => {
    if (mbps > top) return
    c.context.strokeStyle = color
    c.context.setLineDash(dash)
    c.context.beginPath()
    const y = Math.round(floor - mbps * scale) + 0.5
    c.context.moveTo(0, y)
    c.context.lineTo(c.width, y)
    c.context.stroke()
    c.context.setLineDash([])
  }
  line(tide.mean, c.palette.ink, [4, 4])
  line(tide.intake, c.palette.short, [])
}
