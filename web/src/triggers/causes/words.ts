import type { CauseLine, TieFigures, When } from '../../api/types'
import { three } from '../../ui/figures'

/** Tells causes apart. */
export const causeKey = (w: When) =>
  [w.motion && `motion ${w.motion}`, w.area, w.alarm && `alarm ${w.alarm}`, w.lost && `lost ${w.lost}`]
    .concat([
      w.tampered && `tampered ${w.tampered}`,
      w.button && `button ${w.button}`,
      w.uplinkLost ? 'uplink lost' : undefined,
    ])
    .filter(Boolean)
    .join(' / ')

export type Does = TieFigures['does']

/** Whether the plan says of a cause how often it happens. */
export const isCounted = (kind: CauseLine['kind']) => kind === 'lost' || kind === 'tampered' || kind === 'uplinkLost'

/** Tells what is done apart. */
export const effectKey = (does: Does, to: string, preset?: string) =>
  preset ? `${does} ${to} / ${preset}` : `${does} ${to}`

export const kindNames: Record<CauseLine['kind'], string> = {
  motion: 'Motion',
  alarm: 'Alarm inputs',
  button: 'Buttons',
  lost: 'Picture lost',
  tampered: 'Tampering',
  uplinkLost: 'Uplink',
}

export const doesNames: Record<Does, string> = {
  record: 'Records',
  message: 'Tells',
  output: 'Switches',
  monitor: 'Shows on',
  preset: 'Sends',
  still: 'Takes a snapshot of',
  offsite: 'Copies off site',
}

/** A cause at the beginning of a line. */
export function causeName(c: CauseLine, of: (id?: string) => string): string {
  if (c.when.area) return `${c.name}, on ${of(c.of)}`
  return c.name
}

/** Why a tie never acts. */
export const whyWords: Record<NonNullable<TieFigures['why']>, string> = {
  off: 'detection is off there',
  never: 'never happens',
  hours: 'never happens in these hours',
  deaf: 'its duty ignores it then',
  quiet: 'quiet whenever it happens',
  empty: 'no camera there',
  nothing: 'nothing set up for it',
}

/** How often, in few words. */
export function aDay(n: number): string {
  if (n === 0) return 'never'
  if (n >= 0.1) return `${three(n)} a day`
  if (n * 30.44 >= 0.1) return `${three(n * 30.44)} a month`
  return `${three(n * 365.25)} a year`
}
