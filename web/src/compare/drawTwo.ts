import type { Ink } from '../api/types'
import { prepare, x } from '../drawing/drawRibbon'
import type { Palette } from '../theme/palette'
import { DAY, WEEK } from '../time/week'

/** One week over another: what both write in soft ink, what the second adds as a comb, what it takes away outlined. */
export function drawTwo(
  element: HTMLCanvasElement,
  width: number,
  height: number,
  palette: Palette,
  full: number,
  first?: Ink,
  second?: Ink,
) {
  const c = prepare(element, width, height, palette, { from: 0, to: WEEK })
  const at = (ink: Ink | undefined) => {
    const from = ink?.from ?? []
    let k = 0
    return (minute: number) => {
      if (!ink || !from.length) return 0
      while (k + 1 < from.length && from[k + 1]! <= minute) k++
      return ((ink.base?.[k] ?? 0) + (ink.motion?.[k] ?? 0) + (ink.alarm?.[k] ?? 0)) / (full || 1)
    }
  }
  const edges = [...new Set([0, ...(first?.from ?? []), ...(second?.from ?? [])])].sort((a, b) => a - b)
  const [was, is] = [at(first), at(second)]
  const top = height - 2
  c.context.lineWidth = 1
  c.context.fillStyle = palette.rule
  for (let day = 1; day < 7; day++) c.context.fillRect(Math.round(x(c, day * DAY)), 0, 1, height)
  edges.forEach((from, i) => {
    const [a, b] = [was(from) * top, is(from) * top]
    const [left, right] = [x(c, from), x(c, edges[i + 1] ?? WEEK)]
    const common = Math.min(a, b)
    c.context.globalAlpha = 0.35
    c.context.fillStyle = palette.ink
    c.context.fillRect(left, height - common, right - left, common)
    c.context.globalAlpha = 1
    if (b > a) {
      c.context.fillStyle = palette.motion
      for (let p = Math.ceil(left / 3) * 3; p < right; p += 3) c.context.fillRect(p, height - b, 1.4, b - a)
      c.context.fillRect(left, height - b, right - left, 1)
    } else if (a > b) {
      c.context.fillStyle = c.context.strokeStyle = palette.short
      c.context.globalAlpha = 0.16
      c.context.fillRect(left, height - a, right - left, a - b)
      c.context.globalAlpha = 1
      c.context.setLineDash([3, 2])
      c.context.beginPath()
      c.context.moveTo(left, height - a + 0.5)
      c.context.lineTo(right, height - a + 0.5)
      c.context.stroke()
      c.context.setLineDash([])
    }
  })
}
