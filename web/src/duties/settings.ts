import type { Duty } from '../api/types'

/** What a layer asks for beside its frames. */
export type Settings = Pick<NonNullable<Duty['base']>, 'quality' | 'percent'>

export const settingsKinds = [
  ['same', 'as the stream'],
  ['quality', 'better or worse pictures'],
  ['percent', 'a share of it'],
] as const

export function kindOfSettings(s: Settings): (typeof settingsKinds)[number][0] {
  if (s.quality) return 'quality'
  return s.percent ? 'percent' : 'same'
}

/** Says it behind what is written. */
export function sayOfSettings(s: Settings): string {
  const steps = s.quality ?? 0
  const quality = steps
    ? `, quality ${Math.abs(steps)} ${Math.abs(steps) === 1 ? 'step' : 'steps'} ${steps < 0 ? 'lower' : 'higher'}`
    : ''
  return quality + (s.percent ? `, ${s.percent} % of the bitrate` : '')
}
