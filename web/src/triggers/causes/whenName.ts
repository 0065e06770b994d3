import type { Plan, When } from '../../api/types'

/** A cause as people call it. */
export function whenName(plan: Plan | undefined, w: When): string {
  const channel = (id?: string) => plan?.channels.find((c) => c.id === id)
  const areas = channel(w.motion)?.detection?.areas
  if (w.area && Array.isArray(areas))
    return `${areas.find((a) => a.id === w.area)?.name ?? w.area}, on ${channel(w.motion)?.name}`
  if (w.motion) return `motion on ${channel(w.motion)?.name}`
  if (w.lost) return `picture lost on ${channel(w.lost)?.name}`
  if (w.tampered) return `tampering with ${channel(w.tampered)?.name}`
  if (w.uplinkLost) return 'uplink lost'
  if (w.button) return plan?.callButtons?.find((b) => b.id === w.button)?.name ?? w.button
  return plan?.alarmInputs?.find((a) => a.id === w.alarm)?.name ?? w.alarm ?? ''
}
