const overlap = (a: DOMRect, b: DOMRect) =>
  a.left < b.right && b.left < a.right && a.top < b.bottom - 1 && b.top < a.bottom - 1

/** Moves names in a drawing up or down by lines of their own height, where they would lie over others. */
export function apart(svg: SVGElement) {
  const board = svg.getBoundingClientRect()
  const texts = [...svg.querySelectorAll('text')].filter((t) => t.textContent?.trim())
  for (const t of texts) t.removeAttribute('transform')
  const taken: DOMRect[] = []
  for (const t of texts) {
    const box = t.getBoundingClientRect()
    const unit = t.getBBox().height / (box.height || 1)
    const places = [0, -1, 1, -2, 2, -3, 3].map(
      (lines) => [lines, new DOMRect(box.x, box.y + lines * box.height, box.width, box.height)] as const,
    )
    const free = places.find(
      ([, b]) => b.top >= board.top && b.bottom <= board.bottom && !taken.some((o) => overlap(o, b)),
    )
    if (free?.[0]) t.setAttribute('transform', `translate(0 ${free[0] * box.height * unit})`)
    taken.push(free?.[1] ?? box)
  }
}
