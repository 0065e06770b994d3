import type { Duty } from '../api/types'
import { sayOfSettings } from './settings'

const streams = { main: 'the main stream', sub: 'the sub stream', third: 'the third stream' }
const frames = (fps?: number) => (fps ? ` at ${fps} frames a second` : '')

/** Says what a duty writes, idle and on an event. */
export function explain({ base, event }: Pick<Duty, 'base' | 'event'>): string {
  const idle = !base
    ? 'nothing'
    : base.keyframesOnly
      ? `keyframes of ${streams[base.stream]}${sayOfSettings(base)}`
      : streams[base.stream] + frames(base.fps) + sayOfSettings(base)
  if (!event) return base ? `Writes ${idle} all the time` : 'Writes nothing'
  const on = event.on.join(event.match === 'all' ? ' and ' : ' or ')
  return `Idle: ${idle}. On ${on}: ${streams[event.stream]}${frames(event.fps)}${sayOfSettings(event)}`
}
