import type { Operation } from 'fast-json-patch'
import { until, useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'

import { again, mayPass, newKey, patience, pause } from '../api/again'
import { author } from '../api/author'
import { ask, type Question } from '../api/ask'
import { api, inWords } from '../api/client'
import type {
  Answer,
  Conflict,
  Edit,
  Figures,
  Finding,
  Plan,
  PoolFigures,
  Problem,
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
import { notice } from '../ui/notice'
import { patched } from './patch'
import { useChanges } from './useChanges'
import { useQueue, type Echo, type Pending, type Sent } from './useQueue'
import { useTurns } from './useTurns'

/**
 * The site in hand: its plan and figures as the server last told them, and the changes on their way to it. It
 * calculates nothing; a change is answered with what it changed.
 */
export const useSite = defineStore('site', () => {
  const id = ref('')
  const planId = ref('') // of the plan that is open, the site's adopted one
  const here = computed(() => ({ path: { id: planId.value } })) // the parameters of questions about it
  const variants = shallowRef<Variant[]>([]) // the plans of the site, the removed ones too
  const adopted = ref('') // which of them is carried out
  let wanted = '' // the one that was asked for
  const version = ref(0)
  const mark = ref('') // which history it is a version of
  const stamp = computed(() => `${planId.value} ${mark.value} ${version.value}`) // of a plan at a version, over all plans
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
  const failure = ref('')
  const failed = ref(0) // the status of that
  const unreadable = ref(false) // whether what is stored is beyond this program
  const answered = shallowRef<Answer>() // the last answer, for those who keep more of it
  const handed = ref(0) // how often somebody did something of the sheets
  const loaded = ref(0) // how often the site was read whole
  const conflict = shallowRef<{ on: number; since: Conflict['since']; more: number; pending: Pending }>()

  /** Opens a plan of a site; without one named, the adopted one. What is shown of the site stays until it is there. */
  async function open(site: string, variant = '') {
    if (site !== id.value) {
      plan.value = undefined
      planId.value = ''
      variants.value = []
    }
    id.value = site
    wanted = variant
    await reload()
  }

  /** Leaves the site, so that nothing of it is shown or heard elsewhere. */
  function close() {
    id.value = ''
    planId.value = ''
    plan.value = undefined
    wanted = ''
  }

  async function reload() {
    const [asked, variant] = [id.value, wanted]
    const told = await ask(
      api.GET('/api/sites/{id}', { params: { path: { id: asked }, query: { plan: variant || undefined } } }),
    )
    if (asked !== id.value || variant !== wanted) return // left in the meantime
    failure.value = told.problem
    failed.value = told.status
    unreadable.value = told.error?.type === 'wakefield:unreadable'
    if (told.data) {
      takeSite(told.data.site)
      takeView(told.data.plan)
    } else if (unreadable.value) planId.value = variant || asked
  }

  function takeSite(site: StoredSite) {
    variants.value = site.plans ?? []
    adopted.value = site.adopted
  }

  /** Asks which variants there are, as others may have made some. */
  async function lookForVariants() {
    const asked = id.value
    const told = await ask(api.GET('/api/sites/{id}/plans', { params: { path: { id: asked } } }))
    if (told.data && asked === id.value) takeSite(told.data)
  }

  /** What a change is made on. */
  const body = () => ({ version: version.value, mark: mark.value })

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

  function takeAnswer(answer: Answer) {
    if (!plan.value || (answer.mark === mark.value && answer.version <= version.value)) return // it is shown already
    if (answer.mark !== mark.value || answer.from !== version.value) {
      void reload() // the patch is not from the version shown
      return
    }
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
    mine.value = { ...mine.value, [planId.value]: [...(mine.value[planId.value] ?? []), answer.made].slice(-200) }
  }

  /**
   * Sends one change. What may go better later waits; a refusal is shown and dropped; what the server fails on is set
   * aside.
   */
  async function send(pending: Pending): Promise<Sent> {
    pending.on ??= body()
    const told = await ask(
      api.POST('/api/plans/{id}/edits', {
        params: { ...here.value, header: { 'Idempotency-Key': pending.key } },
        body: { ...pending.on, edits: pending.edits },
      }),
    )
    if (told.data) takeAnswer(told.data)
    else if (!told.status) return { now: 'later' }
    else return await refused(told.status, told.error!, pending)
    return { now: 'done' }
  }

  async function refused(status: number, problem: Problem, pending: Pending): Promise<Sent> {
    if (mayPass(status)) return { now: 'later' }
    if (status === 409 && (problem as Conflict).restored) {
      void restored()
      return { now: 'aside', why: gone, anew: true }
    }
    if (status === 409) {
      conflict.value = {
        on: version.value,
        since: (problem as Conflict).since,
        more: (problem as Conflict).more,
        pending,
      }
      await reload()
    } else if (status >= 500) {
      return { now: 'aside', why: inWords(problem) }
    } else if (pending.refused) {
      pending.refused(problem)
    } else {
      notice(`Not changed. ${inWords(problem)}`, { error: true, seconds: 8 })
    }
    return { now: 'done' }
  }

  /** Revisions made in this browser: two people may have the same name. */
  const mine = useStorage<Record<string, number[]>>('wakefield-mine', {})
  const isOthers = () => undoesBy.value !== author.value || !(mine.value[planId.value] ?? []).includes(version.value)

  const queue = useQueue(send)
  let stepping = false
  let asked = 0 // the version at which undoing another's change was asked about

  const gone = 'A backup was restored: this was made on a plan that is not there any more.'
  let restoring = false

  /** Drops all that was known of a history that is gone; what is in hand is kept, and its owner asked. */
  async function restored() {
    if (restoring) return
    restoring = true
    queue.putAside(gone)
    conflict.value = undefined
    opened.value = undefined
    mine.value = { ...mine.value, [planId.value]: [] }
    plan.value = undefined
    await reload()
    for (let tries = 0; failure.value && tries < 20 && mayPass(failed.value); tries++) {
      await pause(patience.first)
      await reload()
    }
    restoring = false
    if (plan.value)
      notice(`A backup was restored. This is the plan as it is now, at revision ${version.value}.`, { seconds: 10 })
  }

  function hear(other: { version: number; mark: string; author?: string; sentence?: string }) {
    if (plan.value && other.mark !== mark.value) {
      void restored()
      return
    }
    // What is on its way here will be answered with the version it made, or meet a newer one.
    if (other.version <= version.value || queue.waiting.value.length || stepping || !plan.value) return
    void reload().then(() => {
      if (other.sentence) notice(`${other.author}: ${other.sentence}`)
    })
  }

  /** Asks for the version where changes may have been missed. */
  async function compare() {
    const asked = planId.value
    if (!asked) return
    const told = await ask(api.GET('/api/plans/{id}/version', { params: here.value }))
    if (asked !== planId.value) return
    if (told.data)
      hear(told.data) // without an answer the stream tells when the server is there again
    else if (told.status === 404 && plan.value) void restored()
    handed.value++
    void lookForVariants()
  }
  useChanges(id, {
    changed: (change) => (change.plan === planId.value ? hear(change) : void lookForVariants()),
    site: (change) => (change.what === 'handover' ? void handed.value++ : void lookForVariants()),
    missed: () => void compare(),
  })

  function change(edits: Edit[], echo?: Echo, refused?: Pending['refused']) {
    queue.add({ edits, echo, refused })
  }

  const steps = { undo: 'Undone', redo: 'Done again', return: 'Done' }
  type On = { version: number; mark: string }
  type Stepping = (params: { path: { id: string }; header: { 'Idempotency-Key': string } }, on: On) => Question<Answer>
  const ways: Record<'undo' | 'redo', Stepping> = {
    undo: (params, body) => api.POST('/api/plans/{id}/undo', { params, body }),
    redo: (params, body) => api.POST('/api/plans/{id}/redo', { params, body }),
  }

  /** Undoes, redoes or returns, once what is on its way has arrived; tells whether it was done. */
  async function go(what: keyof typeof steps, way: Stepping): Promise<boolean> {
    await until(queue.state).not.toBe('saving')
    if (queue.waiting.value.length || stepping) return false
    stepping = true
    const header = { 'Idempotency-Key': newKey() }
    const on = body() // the same whenever it is sent again, as its key belongs to that
    const told = await ask(again(() => way({ ...here.value, header }, on)))
    stepping = false
    if (told.data) {
      takeAnswer(told.data)
      notice(`${steps[what]}: ${told.data.sentence}`, { seconds: 2.5 })
      return true
    }
    if (told.status === 409 && (told.error as Conflict).restored) {
      await restored()
    } else if (told.status === 409) {
      await reload()
      notice('The plan was changed in the meantime. Here it is as it stands now.', { seconds: 5 })
    } else {
      notice(told.status ? told.problem : 'The server does not answer. Whether that was done shows when it is back.', {
        error: true,
      })
    }
    return false
  }

  /** Undoes or redoes; before another's change is undone, that is asked. */
  const step = useTurns(async (what: 'undo' | 'redo') => {
    if (!(what === 'undo' ? undoes.value : redoes.value)) return false
    if (what === 'undo' && undoesBy.value && isOthers() && asked !== version.value) {
      asked = version.value
      const whose =
        undoesBy.value === author.value ? `${undoesBy.value}’s, made in another browser` : `${undoesBy.value}’s`
      notice(`The last change is ${whose}: ${undoes.value}. Once more undoes it.`, { seconds: 6 })
      return false
    }
    return go(what, ways[what])
  })

  /** Returns to an earlier revision, as a new one. */
  const returnTo = (revision: number) =>
    go('return', (params, on) => api.POST('/api/plans/{id}/return', { params, body: { ...on, revision } }))

  /** Ids for new things of a kind, made of their names; nothing, and a notice, where the server is away. */
  async function freeIds(kind: string, ...names: string[]): Promise<string[] | undefined> {
    const told = await ask(api.POST('/api/plans/{id}/ids', { params: here.value, body: { kind, names } }))
    if (!told.data) notice(`${told.problem} Nothing was changed.`, { error: true })
    return told.data?.ids
  }

  /** Makes the change again that met a newer version, on that version. */
  function tryAgain() {
    if (conflict.value) change(conflict.value.pending.edits, conflict.value.pending.echo)
    conflict.value = undefined
  }

  const echoes = computed(() => queue.waiting.value.flatMap((p) => (p.echo ? [p.echo] : [])))
  /** Channels with a stroke on its way. */
  const waitingOn = computed(() => new Set(echoes.value.flatMap((e) => e.channels)))
  const largestKbps = computed(() => Math.max(1, ...[...figures.values()].map((f) => f.fullKbps)))
  const dutyList = computed(() => plan.value?.duties)
  const duties = computed(() => new Map((dutyList.value ?? []).map((d) => [d.id, d])))
  const channels = computed(() => new Map((plan.value?.channels ?? []).map((c) => [c.id, c])))

  return {
    id,
    planId,
    here,
    rails,
    freeIds,
    version,
    stamp,
    variants,
    adopted,
    lookForVariants,
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
    findings,
    opened,
    failure,
    unreadable,
    conflict,
    answered,
    loaded,
    handed,
    largestKbps,
    duties,
    channels,
    echoes,
    waitingOn,
    state: queue.state,
    waiting: queue.waiting,
    aside: queue.aside,
    settle: queue.settle,
    open,
    close,
    reload,
    change,
    step,
    returnTo,
    tryAgain,
  }
})
