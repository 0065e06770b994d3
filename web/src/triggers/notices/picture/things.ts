import type { Cells } from './cells'

/** A place in the picture: shares of its width and height from the top left. */
export type Point = [number, number]
export type Kind = 'area' | 'walk' | 'patch' | 'person'
export type Tool = 'watch' | 'ignore' | 'brush' | 'walk' | 'patch' | 'person'

/** A thing in the picture that can be picked, with the points that are dragged. A person has feet and head. */
export interface Thing {
  kind: Kind
  id: string
  name: string
  points: Point[] // none where it is painted
  cells?: Cells
}

export const keyOf = (t: { kind: Kind; id: string }) => `${t.kind} ${t.id}`
