import { computed } from 'vue'

import type { CauseLine, Hours, TieFigures } from '../../api/types'
import { useSite } from '../../site/useSite'
import { causeKey, causeName, doesNames, effectKey, kindNames, type Does } from './words'

/** Something that can be done because of a cause. */
export interface Target {
  key: string
  does: Does
  to: string
  preset?: string
  name: string
  group: string // of the channel
}

export interface CauseRow {
  key: string
  line: CauseLine
  name: string
  group: string
}

/** A tie with both of its ends. */
export interface TieRow {
  key: string
  cause: CauseRow
  target: Target
  figures: TieFigures
  hours?: Hours[]
  dwell?: number // seconds that a camera looks there
}

/** Causes on one side, and what can be done because of them on the other. */
export function useEnds(lines: () => CauseLine[] | undefined) {
  const site = useSite()
  // Parts of the plan by themselves: what did not change is not made anew.
  const channels = computed(() => site.plan?.channels)
  const messages = computed(() => site.plan?.messages)
  const outputs = computed(() => site.plan?.outputs)
  const monitors = computed(() => site.plan?.monitors)

  const names = computed(() => new Map((channels.value ?? []).map((c) => [c.id, c.name])))
  const channelName = (id?: string) => names.value.get(id ?? '') ?? id ?? ''

  const causes = computed<CauseRow[]>(() =>
    (lines() ?? []).map((line) => ({
      key: causeKey(line.when),
      line,
      name: causeName(line, channelName),
      group: kindNames[line.kind],
    })),
  )
  const targets = computed<Target[]>(() => {
    const cameras = (channels.value ?? []).filter((c) => !c.noCamera)
    const make = (does: Does, to: string, name: string, preset?: string): Target => ({
      key: effectKey(does, to, preset),
      does,
      to,
      preset,
      name,
      group: doesNames[does],
    })
    return [
      ...(messages.value ?? []).map((m) => make('message', m.id, m.name)),
      ...(outputs.value ?? []).map((o) => make('output', o.id, o.name)),
      ...(monitors.value ?? []).map((m) => make('monitor', m.id, m.name)),
      ...cameras.flatMap((c) =>
        (c.movable?.presets ?? []).map((x) => make('preset', c.id, `${c.name} to ${x.name}`, x.id)),
      ),
      ...cameras.map((c) => make('record', c.id, c.name)),
      ...cameras.map((c) => make('still', c.id, c.name)),
      ...cameras.map((c) => make('offsite', c.id, c.name)),
    ]
  })
  const causeBy = computed(() => new Map(causes.value.map((c) => [c.key, c])))
  const targetBy = computed(() => new Map(targets.value.map((t) => [t.key, t])))
  return { causes, targets, causeBy, targetBy }
}
