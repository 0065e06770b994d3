import { ref, type Ref } from 'vue'

import { keyOf, type Point, type Thing } from './things'
import type { Picture } from './usePicture'

/** Corners of things in the picture: dragged by the pointer, moved by arrows, removed by Alt+click or Delete. */
export function useCorners(board: Ref<SVGElement | null>, picture: Picture) {
  const pointer = ref<Point>()
  let dragged: { thing: Thing; corner: number; moved: boolean } | undefined
  let nudged: { key: string; corner: number; at: Point } | undefined // by an arrow that is held

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
      const key = keyOf(thing)
      const p = nudged?.key === key && nudged.corner === corner ? nudged.at : thing.points[corner]!
      nudged = { key, corner, at: [p[0] + by[0]!, p[1] + by[1]!] }
      picture.pick(key)
      picture.drag(thing, corner, nudged.at)
    } else if (event.key === 'Delete') picture.dropCorner(thing, corner)
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  /** The arrow is let go, or the corner left: as far as it was moved is one change. */
  function settle(thing: Thing, corner: number) {
    if (nudged?.key !== keyOf(thing) || nudged.corner !== corner) return
    picture.drag(thing, corner, nudged.at)
    nudged = undefined
    picture.keep()
  }

  return { pointer, place, grab, move, release, giveUp, nudge, settle }
}
