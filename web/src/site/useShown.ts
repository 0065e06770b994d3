import type { Operation } from 'fast-json-patch'
import { computed, ref, shallowReactive, shallowRef } from 'vue'

import type {
  Answer,
  Figures,
  Finding,
  Plan,
  PoolFigures,
  Rail,
  RecorderFigures,
  Ribbon,
  StoredSite,
  Tide,
  Variant,
  Verdict,
  View,
  YearVerdict,
} from '../api/types'
import { patched } from './patch'

/** A plan and its figures as the server last told them. It calculates nothing. */
export function useShown() {
  const planId = ref('') // of the plan that is open, the site's adopted one
  const variants = shallowRef<Variant[]>([]) // the plans of the site, the removed ones too
  const adopted = ref('') // which of them is carried out
  const version = ref(0)
  const mark = ref('') // which history it is a version of
  const undoes = ref('')
  const undoesBy = ref('') // whose change undo would take back
  const redoes = ref('')
  const plan = shallowRef<Plan>()
  const figures = shallowReactive(new Map<string, Figures>())
  const ribbons = shallowReactive(new Map<string, Ribbon>())
  const pools = shallowRef<PoolFigures[]>([])
  const recorders = shallowRef<RecorderFigures[]>([])
  const verdict = shallowRef<Verdict>()
  const tide = shallowRef<Tide>()
  const rails = shallowRef(new Map<string, Rail>()) // of the named weeks
  const findings = shallowRef<Finding[]>([])
  const opened = shallowRef<Verdict>()
  const year = shallowRef<YearVerdict>() // the worst date, where some are special
  const answered = shallowRef<Answer>() // the last answer, for those who keep more of it
  const loaded = ref(0) // how often the site was read whole

  /** What comes whole with every answer. */
  function takeState(state: View | Answer) {
    version.value = state.version
    mark.value = state.mark
    undoes.value = state.undo
    undoesBy.value = state.undoBy
    redoes.value = state.redo
    pools.value = state.pools
    recorders.value = state.recorders
    verdict.value = state.verdict
    year.value = state.year
    tide.value = state.tide
    rails.value = new Map(state.rails.map((r) => [r.id, r.rail]))
  }

  function takeSite(site: StoredSite) {
    variants.value = site.plans ?? []
    adopted.value = site.adopted
  }

  function takeView(view: View) {
    if (view.id !== planId.value) opened.value = undefined
    planId.value = view.id
    ribbons.clear()
    for (const r of view.ribbons) ribbons.set(r.id, r)
    figures.clear()
    for (const f of view.figures) figures.set(f.id, f)
    plan.value = view.plan
    findings.value = view.findings
    opened.value ??= view.verdict
    takeState(view)
    loaded.value++
  }

  /** Takes what a change has changed. Nothing is taken where it is shown already, or is not from the version shown. */
  function takeAnswer(answer: Answer): 'taken' | 'known' | 'elsewhere' {
    if (!plan.value || (answer.mark === mark.value && answer.version <= version.value)) return 'known'
    if (answer.mark !== mark.value || answer.from !== version.value) return 'elsewhere'
    for (const r of answer.ribbons) ribbons.set(r.id, r)
    for (const f of answer.figures) figures.set(f.id, f)
    const known = new Set(answer.order)
    for (const gone of [...figures.keys()].filter((k) => !known.has(k))) {
      figures.delete(gone)
      ribbons.delete(gone)
    }
    plan.value = patched(plan.value, answer.patch as Operation[])
    const before = findings.value
    findings.value = answer.findings.flatMap((run) =>
      run.finding ? [run.finding] : before.slice(run.from ?? 0, (run.from ?? 0) + (run.count ?? 0)),
    )
    takeState(answer)
    answered.value = answer
    return 'taken'
  }

  const here = computed(() => ({ path: { id: planId.value } })) // the parameters of questions about it
  const stamp = computed(() => `${planId.value} ${mark.value} ${version.value}`) // of a plan at a version, over all plans
  const largestKbps = computed(() => Math.max(1, ...[...figures.values()].map((f) => f.fullKbps)))
  const dutyList = computed(() => plan.value?.duties)
  const duties = computed(() => new Map((dutyList.value ?? []).map((d) => [d.id, d])))
  const channels = computed(() => new Map((plan.value?.channels ?? []).map((c) => [c.id, c])))

  return {
    planId,
    here,
    variants,
    adopted,
    version,
    mark,
    stamp,
    undoes,
    undoesBy,
    redoes,
    plan,
    figures,
    ribbons,
    pools,
    recorders,
    verdict,
    year,
    tide,
    rails,
    findings,
    opened,
    answered,
    loaded,
    largestKbps,
    duties,
    channels,
    takeSite,
    takeView,
    takeAnswer,
  }
}

export type Shown = ReturnType<typeof useShown>
