import type { Recorder, Takes } from '../../api/types'
import { readNumber } from '../../ui/number'
import { count } from '../../ui/figures'

/** A list of numbers as people write it: "0, 5, 10" or "0 5 10"; or why it is none. */
export function readList(text: string, limits: { min: number; max: number }): { values: number[] } | { why: string } {
  const values: number[] = []
  for (const word of text.split(/[;,\s]+/).filter(Boolean)) {
    const read = readNumber(word, limits)
    if ('why' in read) return { why: read.why }
    if (!values.includes(read.value)) values.push(read.value)
  }
  return { values: values.sort((a, b) => a - b) }
}

/** What a recorder takes, without what is not said. */
export function tidy(takes: Takes): Takes | undefined {
  const isSaid = (name: string, v: unknown) =>
    Array.isArray(v) ? name === 'copies' || v.length > 0 : v !== undefined && v !== '' && v !== 0
  const said = Object.entries(takes).filter(([name, v]) => isSaid(name, v))
  return said.length ? (Object.fromEntries(said) as Takes) : undefined
}

const areas = { grid: 'areas on a grid', polygon: 'areas as polygons', none: 'only hears of events' }

/** What a recorder takes, in a few words. */
export function inWords(takes: Takes | undefined): string {
  if (!takes) return 'all that is planned'
  const parts = [
    takes.stepMinutes && takes.stepMinutes > 1 ? `steps of ${takes.stepMinutes} min` : '',
    takes.periodsPerDay ? `${count(takes.periodsPerDay, 'period')} a day` : '',
    takes.layers === 'one' ? 'one layer at a time' : '',
    takes.preSeconds?.length || takes.postSeconds?.length ? 'certain seconds' : '',
    takes.framesPerSecond?.length ? 'certain frame rates' : '',
    takes.areas ? areas[takes.areas] : '',
    takes.copies && takes.copies.length < 5 ? (takes.copies.length ? 'copies some' : 'copies nothing') : '',
  ]
  return parts.filter(Boolean).join(', ') || 'all that is planned'
}

/** Recorders of which it is said what they take. */
export const withTakes = (recorders: Recorder[], but?: string) => recorders.filter((r) => r.takes && r.id !== but)
