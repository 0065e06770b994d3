/** Where a label stands that begins at a place: within the picture, on the other side of it where there is no room. */
export function labelAt(text: string, x: number, y: number, width: number, height: number, unit: number) {
  const wide = text.length * 6.4 * unit
  return {
    x: Math.max(4 * unit, Math.min(x, width - wide - 4 * unit)),
    y: Math.max(14 * unit, Math.min(y, height - 5 * unit)),
  }
}
