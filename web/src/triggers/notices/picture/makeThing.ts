import type { Area, Channel, Edit } from '../../../api/types'
import type { Point, Tool } from './things'

/** What Enter lays where nothing was pointed at. */
export const plain: Record<Exclude<Tool, 'brush'>, Point[]> = {
  watch: [
    [0.3, 0.4],
    [0.7, 0.4],
    [0.7, 0.8],
    [0.3, 0.8],
  ],
  ignore: [
    [0.05, 0.4],
    [0.2, 0.4],
    [0.2, 0.6],
    [0.05, 0.6],
  ],
  walk: [
    [0.3, 0.95],
    [0.5, 0.6],
  ],
  patch: [
    [0.75, 0.3],
    [0.95, 0.3],
    [0.95, 0.5],
    [0.75, 0.5],
  ],
  person: [
    [0.5, 0.85],
    [0.5, 0.5],
  ],
}

/** How many points each tool needs. */
const needed = { watch: 3, ignore: 3, walk: 2, patch: 3, person: 2 }

/** An id that nothing of a list has, and its number. */
export function freeID(kind: string, list: { id: string }[]) {
  for (let n = 1; ; n++) if (!list.some((x) => x.id === `${kind}-${n}`)) return { id: `${kind}-${n}`, n }
}

/** The edit that makes what was laid out, and its key; or why it cannot be made. Nothing where points are missing. */
export function makeThing(
  tool: Exclude<Tool, 'brush'>,
  points: Point[],
  channel: Channel,
  areas: Area[],
  anyActivity: string | undefined,
): { edit: Edit; key: string } | { problem: string } | undefined {
  if (points.length < needed[tool]) return undefined
  const scene = channel.scene ?? {}
  const on = channel.id
  if (tool === 'person') {
    const person = { x: points[0]![0], feetY: points[0]![1], headY: points[1]![1] }
    const people = [...(scene.people ?? []), person].slice(-2)
    const degrees = scene.verticalDegrees ? {} : { verticalDegrees: 50 }
    return { edit: { setGround: { channel: on, people, ...degrees } }, key: '' }
  }
  if (tool === 'walk') {
    const { id, n } = freeID('walk', scene.walks ?? [])
    const sharePercent = 100 - (scene.walks ?? []).reduce((sum, w) => sum + w.sharePercent, 0)
    if (sharePercent <= 0)
      return { problem: 'The other walks take all of the events: lower the share of one of them first.' }
    const walk = { id, name: `Walk ${n}`, object: 'person', sharePercent, points }
    return { edit: { setWalk: { channel: on, walk } }, key: `walk ${id}` }
  }
  if (tool === 'patch') {
    const { id, n } = freeID('patch', scene.patches ?? [])
    const activity = channel.nuisance ?? anyActivity
    if (!activity) return { problem: 'There is no activity yet that says how often it moves: make one in Kit first.' }
    const patch = { id, name: `Patch ${n}`, activity, blobPercent: 1, points }
    return { edit: { setPatch: { channel: on, patch } }, key: `patch ${id}` }
  }
  const { id, n } = freeID('area', areas)
  const ignore = tool === 'ignore'
  const area = { id, name: `${ignore ? 'Ignored' : 'Area'} ${n}`, ...(ignore && { ignore }), points }
  return { edit: { setArea: { channel: on, area } }, key: `area ${id}` }
}
