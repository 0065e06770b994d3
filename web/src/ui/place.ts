/** How many of the window's pixels are one of an element's own: more than 1 where all grows with a large screen. */
export const growth = (element: Element) => element.currentCSSZoom ?? 1

/** Where a pointer is in an element, in the element's own pixels from its upper left corner. */
export function inside(element: Element, at: { clientX: number; clientY: number }) {
  const { left, top } = element.getBoundingClientRect()
  const grown = growth(element)
  return { x: (at.clientX - left) / grown, y: (at.clientY - top) / grown }
}
