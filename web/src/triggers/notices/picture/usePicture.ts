import { computed, ref, watch } from 'vue'

import { useAnswer } from '../../../api/ask'
import { api, inWords } from '../../../api/client'
import type { Area, Channel, Edit, Patch, Problem, Scene, Stand, Walk } from '../../../api/types'
import { useSite } from '../../../site/useSite'
import type { Cells } from './cells'
import { freeID, makeThing } from './makeThing'
import { keyOf, type Kind, type Point, type Thing, type Tool } from './things'

const tidy = (p: Point): Point => p.map((v) => Math.min(1, Math.max(0, Math.round(v * 1e4) / 1e4))) as Point
const least: Record<Kind, number> = { area: 3, walk: 2, patch: 3, person: 2 }

/** What is drawn in the picture of a channel, what is picked and being drawn, and what the core says of it. */
export function usePicture(channel: () => Channel | undefined) {
  const site = useSite()
  const picked = ref('') // key of a thing
  const tool = ref<Tool>()
  const laid = ref<Point[]>([]) // points of what is being drawn
  const held = ref<Thing>() // a thing while it is changed, until the change is kept
  const problem = ref('')
  const stand = ref<Stand>() // who stands in the picture to set a smallest size
  const moment = ref<number>() // of the walk that is picked, as a place in its track

  const areas = computed<Area[]>(() =>
    Array.isArray(channel()?.detection?.areas) ? (channel()!.detection!.areas as Area[]) : [],
  )
  const scene = computed<Scene>(() => channel()?.scene ?? {})
  const things = computed<Thing[]>(() => {
    const of = (kind: Kind, list: (Area | Walk | Patch)[]) =>
      list.map((t): Thing => ({
        kind,
        id: t.id,
        name: t.name,
        points: (t.points ?? []) as Point[],
        cells: 'cells' in t ? t.cells : undefined,
      }))
    const people = (scene.value.people ?? []).map((p, i): Thing => ({
      kind: 'person',
      id: String(i),
      name: i ? 'The other person' : 'A person',
      points: [
        [p.x, p.feetY],
        [p.x, p.headY],
      ],
    }))
    const h = held.value
    const isNew = h?.cells && !areas.value.some((a) => a.id === h.id)
    const all = [
      ...of('area', areas.value),
      ...(isNew ? [h] : []),
      ...of('patch', scene.value.patches ?? []),
      ...of('walk', scene.value.walks ?? []),
      ...people,
    ]
    return all.map((t) => (held.value && keyOf(held.value) === keyOf(t) ? held.value : t))
  })
  /** What is picked, as an address names it. */
  const named = computed<string | undefined>({
    get: () => picked.value,
    set: (key) => {
      if (!key || things.value.some((t) => keyOf(t) === key)) picked.value = key ?? ''
    },
  })
  const thing = computed(() => things.value.find((t) => keyOf(t) === picked.value))
  const area = computed(() => areas.value.find((a) => picked.value === `area ${a.id}`))
  const walk = computed(() => scene.value.walks?.find((w) => picked.value === `walk ${w.id}`))
  const patch = computed(() => scene.value.patches?.find((p) => picked.value === `patch ${p.id}`))

  /** The edit that gives a thing its points. */
  function moved(t: Thing): Edit | undefined {
    const id = channel()!.id
    const points = t.points.map(tidy)
    const a = areas.value.find((x) => x.id === t.id)
    if (t.kind === 'area' && t.cells)
      return { setArea: { channel: id, area: { ...(a ?? { id: t.id, name: t.name }), cells: t.cells } } }
    const w = scene.value.walks?.find((x) => x.id === t.id)
    const p = scene.value.patches?.find((x) => x.id === t.id)
    if (t.kind === 'area' && a) return { setArea: { channel: id, area: { ...a, points } } }
    if (t.kind === 'walk' && w) return { setWalk: { channel: id, walk: { ...w, points } } }
    if (t.kind === 'patch' && p) return { setPatch: { channel: id, patch: { ...p, points } } }
    if (t.kind !== 'person') return undefined
    const people = (scene.value.people ?? []).map((q, i) =>
      String(i) === t.id ? { x: points[0]![0], feetY: points[0]![1], headY: points[1]![1] } : q,
    )
    return { setGround: { channel: id, people } }
  }

  const live = computed(() => (held.value ? moved(held.value) : undefined))
  const { data: seen, failure } = useAnswer(
    () => [channel()?.id, site.stamp, JSON.stringify([live.value, stand.value])],
    () => {
      const c = channel()
      if (!c) return undefined
      const params = { path: { id: site.planId, channel: c.id } }
      return api.POST('/api/plans/{id}/channels/{channel}/picture', {
        params,
        body: { edits: live.value ? [live.value] : [], stand: stand.value },
      })
    },
    { debounce: 15, keep: true },
  )

  function change(edits: (Edit | undefined)[]) {
    problem.value = ''
    const made = edits.filter((e): e is Edit => !!e)
    site.change(made, undefined, (p: Problem) => {
      problem.value = inWords(p)
      held.value = undefined
    })
  }
  watch(
    () => site.stamp,
    () => (held.value = undefined),
  )
  watch(picked, () => (moment.value = stand.value = undefined))
  watch(
    () => channel()?.id,
    () => {
      if (!thing.value) picked.value = '' // what is picked is of this channel where an address brought both
      problem.value = ''
      held.value = undefined
      letGo()
    },
  )

  function letGo() {
    tool.value = undefined
    laid.value = []
  }

  /** Makes the thing that was laid out, or says why it cannot be. */
  function finish(points = laid.value) {
    const t = tool.value
    if (!t || t === 'brush') return
    const made = makeThing(t, points.map(tidy), channel()!, areas.value, site.plan?.activities?.at(-1)?.id)
    if (!made) return
    letGo()
    if ('problem' in made) problem.value = made.problem
    else {
      change([made.edit])
      if (made.key) picked.value = made.key
    }
  }

  /** Drops the thing that is picked. */
  function remove() {
    const t = thing.value
    if (!t) return
    const id = channel()!.id
    if (t.kind === 'area') change([{ removeArea: { channel: id, area: t.id } }])
    else if (t.kind === 'walk') change([{ removeWalk: { channel: id, walk: t.id } }])
    else if (t.kind === 'patch') change([{ removePatch: { channel: id, patch: t.id } }])
    else
      change([{ setGround: { channel: id, people: (scene.value.people ?? []).filter((_, i) => String(i) !== t.id) } }])
    picked.value = ''
  }

  /** Holds other points of a thing, or lets go of them. */
  const hold = (t?: Thing) => (held.value = t)
  const pick = (key: string) => (picked.value = key)
  const lay = (points: Point[]) => (laid.value = points)
  const look = (at?: number) => (moment.value = at)
  const complain = (text: string) => (problem.value = text)

  /** The cells that a brush changes: those of the area that is picked, where it is painted. */
  const cells = computed(() => (thing.value?.kind === 'area' ? thing.value.cells : undefined))
  function holdCells(of: Cells) {
    if (cells.value) return hold({ ...thing.value!, cells: of })
    const { id, n } = freeID('area', areas.value)
    hold({ kind: 'area', id, name: `Painted ${n}`, points: [], cells: of })
    picked.value = `area ${id}`
  }
  /** Keeps what was painted. Where nothing is left of an area, it goes. */
  function keepCells() {
    const h = held.value
    if (!h?.cells) return
    if (!/^A*=*$/.test(h.cells.on)) return keep()
    hold(undefined)
    if (areas.value.some((a) => a.id === h.id)) remove()
  }

  const freeArea = () => freeID('area', areas.value).id
  const standAt = (s?: Stand) => (stand.value = s && { ...s, feet: tidy(s.feet as Point) })

  /** Keeps what is held, as it is now. */
  const keep = () => held.value && change([moved(held.value)])

  /** Moves a corner of a thing; a person's head stays above the feet. */
  function drag(t: Thing, corner: number, to: Point) {
    const points = t.points.map((p, i): Point => (i === corner ? to : p))
    if (t.kind === 'person') {
      points[corner === 0 ? 1 : 0]![0] = to[0]
      if (corner === 0) points[1] = [to[0], to[1] - (t.points[0]![1] - t.points[1]![1])]
    }
    held.value = { ...t, points: points.map(tidy) }
  }

  function dropCorner(t: Thing, corner: number) {
    if (t.kind === 'person' || t.points.length <= least[t.kind]) return
    held.value = { ...t, points: t.points.filter((_, i) => i !== corner) }
    keep()
  }

  return {
    areas,
    scene,
    things,
    thing,
    area,
    walk,
    patch,
    picked,
    named,
    tool,
    laid,
    held,
    problem,
    seen,
    failure,
    change,
    finish,
    letGo,
    remove,
    keep,
    drag,
    dropCorner,
    hold,
    pick,
    lay,
    complain,
    cells,
    holdCells,
    keepCells,
    stand,
    standAt,
    freeArea,
    moment,
    look,
  }
}

export type Picture = ReturnType<typeof usePicture>
