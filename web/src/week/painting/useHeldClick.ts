import type { Stroke } from '../../hand/useHand'

/** How long a click waits for a second one, which means the whole day. */
const DOUBLE = 230

/** A click that waits for a second one; when none came, or one at another place, it is done. */
export function useHeldClick(done: (stroke: Stroke) => void) {
  let held: { stroke: Stroke; timer: ReturnType<typeof setTimeout>; x: number; y: number } | undefined

  function hold(stroke: Stroke, event: PointerEvent) {
    held ??= { stroke, timer: setTimeout(release, DOUBLE), x: event.clientX, y: event.clientY }
  }

  function release() {
    const click = held
    forget()
    if (click) done(click.stroke)
  }

  /** Does it at once where the pointer is at another place: it was a single click. */
  function elsewhere(event: PointerEvent) {
    if (held && Math.hypot(event.clientX - held.x, event.clientY - held.y) > 4) release()
  }

  function forget() {
    clearTimeout(held?.timer)
    held = undefined
  }

  return { hold, release, elsewhere, forget }
}
