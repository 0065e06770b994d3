/** The hatches that tell layers apart without colour: an upright comb for motion, diagonals for alarm. */

const made = new Map<string, CanvasPattern>()

/**
 * A fine hatch in whole device pixels. It is anchored at the canvas's corner, so that hatches of ribbons one above
 * the other are aligned.
 */
export function hatch(
  context: CanvasRenderingContext2D,
  kind: 'comb' | 'diagonal',
  color: string,
  ratio: number,
): CanvasPattern {
  const key = `${kind} ${color} ${ratio}`
  const known = made.get(key)
  if (known) return known
  const period = Math.max(3, Math.round((kind === 'comb' ? 3 : 5) * ratio))
  const tile = document.createElement('canvas')
  tile.width = tile.height = period
  const t = tile.getContext('2d')!
  t.globalAlpha = 0.2
  t.fillStyle = color
  t.fillRect(0, 0, period, period)
  t.globalAlpha = 0.8
  if (kind === 'comb') {
    t.fillRect(0, 0, Math.max(1, Math.round(ratio)), period)
  } else {
    t.strokeStyle = color
    t.lineWidth = Math.max(1.2, ratio * 1.2)
    t.beginPath()
    for (const shift of [-period, 0, period]) {
      t.moveTo(shift, period)
      t.lineTo(shift + period, 0)
    }
    t.stroke()
  }
  const pattern = context.createPattern(tile, 'repeat')!
  // Patterns are scaled with the context; undo that, so that a tile's pixel is a device pixel.
  pattern.setTransform(new DOMMatrix().scale(1 / ratio))
  made.set(key, pattern)
  return pattern
}
