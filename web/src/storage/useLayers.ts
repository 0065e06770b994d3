import { computed } from 'vue'

import type { PoolFigures } from '../api/types'
import { useSite } from '../site/useSite'
import { add, causes, hoursOf, type Layer } from './band'

const GIGABYTES_A_DAY = 86_400 / 8e6 // that one kbit/s comes to

export type By = 'groups' | 'channels' | 'causes'
const causeNames = { base: 'base layer', motion: 'motion', alarm: 'alarms' }

/** The channels of a pool in layers, by group, by channel or by why it is written; the largest at the bottom. */
export function useLayers(pool: () => PoolFigures, by: () => By) {
  const site = useSite()
  const members = computed(() =>
    (site.plan?.channels ?? [])
      .filter((c) => c.pool === pool().id && !c.noCamera)
      .flatMap((channel) => {
        const figures = site.figures.get(channel.id)
        const ribbon = site.ribbons.get(channel.id)
        return figures && ribbon && figures.gigabytesPerDay > 0 ? [{ channel, figures, ribbon }] : []
      }),
  )
  /** How far back the picture goes: all that is kept or required, or a month where nothing ends. */
  const days = computed(() => {
    const all = members.value.flatMap(({ figures: f }) => [f.retentionDays ?? 0, f.requiredDays ?? 0])
    return Math.max(1, pool().retentionDays ?? 0, ...all) || 30
  })
  const layers = computed(() => {
    const found = new Map<string, Layer>()
    const layer = (id: string, name: string) => {
      if (!found.has(id)) found.set(id, { id, name, parts: [], gigabytesPerDay: 0 })
      return found.get(id)!
    }
    for (const { channel, figures, ribbon } of members.value) {
      const hours = hoursOf(ribbon)
      const kept = figures.retentionDays ?? days.value
      const of =
        by() === 'channels'
          ? layer(channel.id, channel.name)
          : by() === 'groups'
            ? layer(channel.group ?? '', channel.group || 'no group')
            : undefined
      if (of) of.gigabytesPerDay += figures.gigabytesPerDay
      for (const cause of causes) add(of ?? layer(cause, causeNames[cause]), kept, hours[cause])
    }
    if (by() === 'causes')
      for (const l of found.values()) l.gigabytesPerDay = l.parts.reduce((s, p) => s + p.mean, 0) * GIGABYTES_A_DAY
    const list = [...found.values()]
    return by() === 'causes' ? list : list.sort((a, b) => b.gigabytesPerDay - a.gigabytesPerDay)
  })
  return { members, days, layers }
}
