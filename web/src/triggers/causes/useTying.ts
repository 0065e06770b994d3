import { computed, ref, watch, type Ref } from 'vue'

import type { CauseLine, Edit, Effect, Hours } from '../../api/types'
import { useSite } from '../../site/useSite'
import type { CauseRow, Target, TieRow } from './useEnds'
import { isCounted, type Does } from './words'

/** What is picked of causes and of what they do. */
interface Picks {
  causes: CauseRow[]
  targets: Target[]
}

/** Makes ties between what is picked, takes them apart, and gives them hours and seconds. */
export function useTying(picks: Ref<Picks>, ties: Ref<TieRow[]>) {
  const site = useSite()
  const hours = ref<Hours[]>([]) // of ties that are made
  const dwell = ref(20) // seconds that a camera looks away
  const perMonth = ref<number>() // how often what is picked happens, where no tie says it yet
  watch(
    () => picks.value.causes.map((c) => c.key).join(' '),
    () => (perMonth.value = undefined),
  )

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

  return { hours, dwell, counted, rates, setPerMonth, tie, untie, setHours, setDwell, seeing, seeTheSame }
}
