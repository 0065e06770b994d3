import { computed, ref, watch } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { CauseLine, Edit, Effect, Hours, TieFigures } from '../../api/types'
import { useSite } from '../../site/useSite'
import { causeKey, causeName, doesNames, effectKey, isCounted, kindNames, type Does } from './words'

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

/** Causes on one side, what they do on the other, what is picked of them, and the ties between. */
export function useTies() {
  const site = useSite()
  const pickedCauses = ref<string[]>([])
  const pickedTargets = ref<string[]>([])
  const hours = ref<Hours[]>([]) // of ties that are made
  const dwell = ref(20) // seconds that a camera looks away
  const perMonth = ref<number>() // how often what is picked happens, where no tie says it yet
  const { data, failure } = useAnswer(
    () => site.stamp,
    () => api.GET('/api/plans/{id}/ties', { params: site.here }),
    { debounce: 60, keep: true },
  )
  watch(
    () => site.planId,
    () => (data.value = undefined),
  )
  // A change tells what became of the ties; the rest follows when all are asked for.
  watch(
    () => site.answered,
    (answer) => {
      const known = data.value
      if (!answer?.ties || !known || known.version + 1 !== answer.version) return
      const { from, gone, put, shift } = answer.ties
      const behind = (known.ties ?? []).slice(from + gone)
      const moved = shift ? behind.map((t) => ({ ...t, effect: t.effect + shift })) : behind
      data.value = {
        ...known,
        version: answer.version,
        ties: [...(known.ties ?? []).slice(0, from), ...(put ?? []), ...moved],
      }
    },
  )
  // Parts of what is told and of the plan by themselves: what did not change is not made anew.
  const lines = computed(() => data.value?.causes)
  const figures = computed(() => data.value?.ties)
  const effects = computed(() => site.plan?.effects)
  const channels = computed(() => site.plan?.channels)
  const messages = computed(() => site.plan?.messages)
  const outputs = computed(() => site.plan?.outputs)
  const monitors = computed(() => site.plan?.monitors)

  const names = computed(() => new Map((channels.value ?? []).map((c) => [c.id, c.name])))
  const channelName = (id?: string) => names.value.get(id ?? '') ?? id ?? ''

  const causes = computed<CauseRow[]>(() =>
    (lines.value ?? []).map((line) => ({
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

  const ties = computed<TieRow[]>(() => {
    const known = effects.value ?? []
    // The answer may be of an older plan than the one shown; it is asked anew then.
    return (figures.value ?? []).flatMap((figures) => {
      const effect = known[figures.effect]
      const cause = effect && causeBy.value.get(causeKey(effect.when))
      const target = targetBy.value.get(effectKey(figures.does, figures.to, figures.preset))
      if (!effect || !cause || !target) return []
      const dwell = effect.preset?.find((x) => x.channel === target.to && x.preset === target.preset)?.dwellSeconds
      return [{ key: `${figures.effect} ${target.key}`, cause, target, figures, hours: effect.hours?.blocks, dwell }]
    })
  })
  /** How many ties each cause and each target has. */
  const tied = computed(() => {
    const n = new Map<string, number>()
    for (const t of ties.value) for (const k of [t.cause.key, t.target.key]) n.set(k, (n.get(k) ?? 0) + 1)
    return n
  })
  /** The ties of what is picked: of both sides where both are. */
  const shown = computed(() => {
    const [c, t] = [new Set(pickedCauses.value), new Set(pickedTargets.value)]
    if (!c.size && !t.size) return []
    return ties.value.filter((x) => (!c.size || c.has(x.cause.key)) && (!t.size || t.has(x.target.key)))
  })
  /** The ties that are drawn: those of either side that is picked. */
  const strands = computed(() => {
    const [c, t] = [new Set(pickedCauses.value), new Set(pickedTargets.value)]
    return ties.value.filter((x) => c.has(x.cause.key) || t.has(x.target.key))
  })
  watch(
    () => pickedCauses.value.join(' '),
    () => (perMonth.value = undefined),
  )
  watch([causeBy, targetBy], () => {
    if (!data.value) return
    pickedCauses.value = pickedCauses.value.filter((k) => causeBy.value.has(k))
    pickedTargets.value = pickedTargets.value.filter((k) => targetBy.value.has(k))
  })

  const picks = computed(() => ({
    causes: pickedCauses.value.flatMap((k) => causeBy.value.get(k) ?? []),
    targets: pickedTargets.value.flatMap((k) => targetBy.value.get(k) ?? []),
  }))

  /** The effect that ties a cause to targets. */
  function effectOf(cause: CauseLine, list: Target[], at?: Hours[], looks = dwell.value): Effect {
    const when = { ...cause.when }
    if (isCounted(cause.kind)) when.perMonth ??= perMonth.value ?? 0.1
    const of = (does: Does) => {
      const ids = list.filter((t) => t.does === does).map((t) => t.to)
      return ids.length ? ids : undefined
    }
    const sent = list.filter((t) => t.does === 'preset')
    return {
      when,
      record: of('record'),
      message: of('message'),
      output: of('output'),
      monitor: of('monitor'),
      still: of('still'),
      offsite: of('offsite'),
      preset: sent.length ? sent.map((t) => ({ channel: t.to, preset: t.preset!, dwellSeconds: looks })) : undefined,
      hours: at?.length ? { blocks: at } : undefined,
    }
  }

  function tie() {
    const { causes: from, targets: to } = picks.value
    site.change(from.map((c): Edit => ({ addEffect: { effect: effectOf(c.line, to, hours.value) } })))
  }

  const effectBetween = (r: TieRow, at = r.hours, looks = r.dwell) =>
    effectOf(r.cause.line, [r.target], at, looks ?? dwell.value)
  /** Takes ties apart, each at its own hours. */
  const untie = (rows: TieRow[]) => site.change(rows.map((r): Edit => ({ removeEffect: { effect: effectBetween(r) } })))
  /** Gives a tie other hours. */
  const setHours = (row: TieRow, at: Hours[]) =>
    site.change([{ removeEffect: { effect: effectBetween(row) } }, { addEffect: { effect: effectBetween(row, at) } }])
  /** Lets a camera look away for longer or shorter. */
  const setDwell = (row: TieRow, looks: number) =>
    site.change([{ addEffect: { effect: effectBetween(row, row.hours, looks) } }])

  /** Picked causes of which the plan is told how often they happen. */
  const counted = computed(() => picks.value.causes.filter((c) => isCounted(c.line.kind)))
  /** How often a month they happen, each. */
  const rates = computed(() => new Set(counted.value.map((c) => c.line.when.perMonth ?? perMonth.value ?? 0.1)))
  /** Says it of all of them: in the plan where they are tied, else when they are. */
  function setPerMonth(n: number) {
    perMonth.value = n
    const edits = counted.value.flatMap((c): Edit[] => {
      const row = ties.value.find((t) => t.cause.key === c.key)
      if (!row) return []
      const effect = effectBetween(row)
      return [{ addEffect: { effect: { ...effect, when: { ...effect.when, perMonth: n } } } }]
    })
    if (edits.length) site.change(edits)
  }

  /** Channels that see the same place: motion on each records all the others. */
  const seeing = computed(() =>
    picks.value.causes.filter((c) => c.line.kind === 'motion' && !c.line.when.area).map((c) => c.line.when.motion!),
  )
  function seeTheSame() {
    const ids = seeing.value
    site.change(
      ids.map((id): Edit => ({
        addEffect: {
          effect: {
            when: { motion: id },
            record: ids.filter((x) => x !== id),
            hours: hours.value.length ? { blocks: hours.value } : undefined,
          },
        },
      })),
    )
  }

  return {
    causes,
    targets,
    ties,
    tied,
    shown,
    strands,
    picks,
    pickedCauses,
    pickedTargets,
    hours,
    dwell,
    counted,
    rates,
    setPerMonth,
    failure,
    data,
    tie,
    untie,
    setHours,
    setDwell,
    seeing,
    seeTheSame,
  }
}

export type Ties = ReturnType<typeof useTies>
