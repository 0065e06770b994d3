import { ref, type Ref } from 'vue'

import { keyOf, type Point, type Thing } from './things'
import type { Picture } from './usePicture'

/** Corners of things in the picture: dragged by the pointer, moved by arrows, removed by Alt+click or Delete. */
export function useCorners(board: Ref<SVGElement | null>, picture: Picture) {
  const pointer = ref<Point>()
  let dragged: { thing: Thing; corner: number; moved: boolean } | undefined

  function place(event: MouseEvent): Point {
    const box = board.value!.getBoundingClientRect()
    return [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height]
  }

  function grab(event: PointerEvent, thing: Thing, corner: number) {
    if (event.button !== 0 || picture.tool.value) return
    event.stopPropagation()
    if (event.altKey) return picture.dropCorner(thing, corner)
    ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
    picture.pick(keyOf(thing))
    dragged = { thing, corner, moved: false }
  }

  function move(event: PointerEvent) {
    pointer.value = place(event)
    if (!dragged) return
    dragged.moved = true
    picture.drag(dragged.thing, dragged.corner, pointer.value)
  }

  function release() {
    if (dragged?.moved) picture.keep()
    dragged = undefined
  }

  /** Gives up a drag; false where there is none. */
  function giveUp() {
    if (!dragged) return false
    dragged = undefined
    picture.hold(undefined)
    return true
  }

  function nudge(event: KeyboardEvent, thing: Thing, corner: number) {
    const step = (event.shiftKey ? 10 : 1) / 500
    const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[event.key]
    if (by) {
      const p = thing.points[corner]!
      picture.pick(keyOf(thing))
      picture.drag(thing, corner, [p[0] + by[0]!, p[1] + by[1]!])
      picture.keep()
    } else if (event.key === 'Delete') picture.dropCorner(thing, corner)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  return { pointer, place, grab, move, release, giveUp, nudge }
}
