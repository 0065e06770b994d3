import { useHand } from '../../hand/useHand'

/** Coming closer with the wheel and the keys: Ctrl+wheel, plus and minus around the pointer; Shift+wheel goes along. */
export function useZoom(minuteAt: (event: { clientX: number }) => number) {
  const hand = useHand()

  function wheel(event: WheelEvent) {
    if (event.ctrlKey || event.metaKey)
      hand.zoom(Math.exp(Math.max(-1, Math.min(1, event.deltaY / 300))), minuteAt(event))
    else if (!hand.isWhole && (event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY)))
      hand.pan((event.deltaX || event.deltaY) / 800)
    else return
    event.preventDefault()
  }

  /** Whether a key meant the time in view. */
  function key(event: KeyboardEvent): boolean {
    const middle = hand.pointer?.minute ?? (hand.view.from + hand.view.to) / 2
    if (event.key === '+' || event.key === '=') hand.zoom(0.5, middle)
    else if (event.key === '-' || event.key === '_') hand.zoom(2, middle)
    else if (event.key === '0') hand.day = undefined
    else if (event.key === '[' && !hand.isWhole) hand.pan(-0.5)
    else if (event.key === ']' && !hand.isWhole) hand.pan(0.5)
    else return false
    event.preventDefault()
    return true
  }

  return { wheel, key }
}
