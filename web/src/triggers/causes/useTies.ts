import { computed, ref, watch } from 'vue'

import { useSite } from '../../site/useSite'
import { useEnds, type TieRow } from './useEnds'
import { useTold } from './useTold'
import { useTying } from './useTying'
import { causeKey, effectKey } from './words'
import { listText } from '../../site/asText'
import { useInAddress } from '../../site/useInAddress'

/** The ties between causes and what they do, what is picked of both, and what can be done with that. */
export function useTies() {
  const site = useSite()
  const pickedCauses = ref<string[]>([])
  const pickedTargets = ref<string[]>([])
  useInAddress('causes', listText(pickedCauses), true)
  useInAddress('effects', listText(pickedTargets), true)
  const { data, failure } = useTold()
  const { causes, targets, causeBy, targetBy } = useEnds(() => data.value?.causes)
  const figures = computed(() => data.value?.ties)
  const effects = computed(() => site.plan?.effects)

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
  watch([causeBy, targetBy], () => {
    if (!data.value) return
    pickedCauses.value = pickedCauses.value.filter((k) => causeBy.value.has(k))
    pickedTargets.value = pickedTargets.value.filter((k) => targetBy.value.has(k))
  })

  const picks = computed(() => ({
    causes: pickedCauses.value.flatMap((k) => causeBy.value.get(k) ?? []),
    targets: pickedTargets.value.flatMap((k) => targetBy.value.get(k) ?? []),
  }))
  const tying = useTying(picks, ties)

  return { causes, targets, ties, tied, shown, strands, picks, pickedCauses, pickedTargets, failure, data, ...tying }
}

export type Ties = ReturnType<typeof useTies>
