import type { Operation } from 'fast-json-patch'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'

import { again, mayPass, newKey } from '../api/again'
import { author } from '../api/author'
import { api, inWords } from '../api/client'
import type {
  Answer, Conflict, Edit, Figures, Finding, Plan, PoolFigures, Problem, RecorderFigures, Ribbon, Tide, Verdict, View, YearVerdict,
} from '../api/types'
import type { Span } from '../week/time'
import { notice } from '../ui/notice'
import { patched } from './patch'
import { useChanges } from './useChanges'
import { useQueue, type Pending, type Sent } from './useQueue'

/** A stroke that is drawn before the server has answered. */
export interface Echo {
  channels: string[]
  spans: Span[]
  duty: string
}

/**
 * The site in hand: its plan and figures as the server last told them, and the changes on their way to it. It
 * calculates nothing; a change is answered with what it changed.
 */
export const useSite = defineStore('site', () => {
  const id = ref('')
  const version = ref(0)
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
  const findings = shallowRef<Finding[]>([])
  const opened = shallowRef<Verdict>()
  const year = shallowRef<YearVerdict>() // the worst date, where some are special
  const failure = ref('')
  const unreadable = ref(false) // whether what is stored is beyond this program
  const answered = shallowRef<Answer>() // the last answer, for those who keep more of it
  const loaded = ref(0) // how often the site was read whole
  const conflict = shallowRef<{ since: Conflict['since']; more: number; pending: Pending }>()

  async function open(site: string) {
    if (site !== id.value) {
      plan.value = undefined
      opened.value = undefined
    }
    id.value = site
    await reload()
  }

  /** Leaves the site, so that nothing of it is shown or heard elsewhere. */
  function close() {
    id.value = ''
    plan.value = undefined
    opened.value = undefined
  }

  async function reload() {
    failure.value = ''
    unreadable.value = false
    try {
      const asked = id.value
      const { data, error } = await api.GET('/api/sites/{id}', { params: { path: { id: asked } } })
      if (asked !== id.value) return // left in the meantime
      if (data) takeView(data)
      else {
        failure.value = inWords(error)
        unreadable.value = error?.type === 'wakefield:unreadable'
      }
    } catch {
      failure.value = 'The server does not answer.'
    }
  }

  function takeView(view: View) {
    version.value = view.version
    undoes.value = view.undo
    undoesBy.value = view.undoBy
    redoes.value = view.redo
    ribbons.clear()
    for (const r of view.ribbons) ribbons.set(r.id, r)
    figures.clear()
    for (const f of view.figures) figures.set(f.id, f)
    plan.value = view.plan
    pools.value = view.pools
    recorders.value = view.recorders
    verdict.value = view.verdict
    year.value = view.year
    opened.value ??= view.verdict
    tide.value = view.tide
    findings.value = view.findings
    loaded.value++
  }

  function takeAnswer(answer: Answer) {
    if (!plan.value || answer.version <= version.value) return // it is shown already
    if (answer.version > version.value + 1) {
      void reload() // the patch is not from the version shown
      return
    }
    version.value = answer.version
    undoes.value = answer.undo
    undoesBy.value = answer.undoBy
    redoes.value = answer.redo
    for (const r of answer.ribbons) ribbons.set(r.id, r)
    for (const f of answer.figures) figures.set(f.id, f)
    const known = new Set(answer.order)
    for (const gone of [...figures.keys()].filter((k) => !known.has(k))) {
      figures.delete(gone)
      ribbons.delete(gone)
    }
    plan.value = patched(plan.value, answer.patch as Operation[])
    pools.value = answer.pools
    recorders.value = answer.recorders
    verdict.value = answer.verdict
    year.value = answer.year
    tide.value = answer.tide
    findings.value = answer.findings
    answered.value = answer
    mine.value = { ...mine.value, [id.value]: [...(mine.value[id.value] ?? []), answer.version].slice(-200) }
  }

  /** Sends one change. What may go better later waits; a refusal is shown and dropped; what the server fails on is set aside. */
  async function send(pending: Pending): Promise<Sent> {
    try {
      const { data, error, response } = await api.POST('/api/sites/{id}/edits', {
        params: { path: { id: id.value }, header: { 'Idempotency-Key': pending.key } },
        body: { version: version.value, edits: pending.edits },
      })
      if (data) {
        takeAnswer(data)
        return { now: 'done' }
      }
      return await refused(response.status, error as Problem, pending)
    } catch {
      return { now: 'later' }
    }
  }

  async function refused(status: number, problem: Problem, pending: Pending): Promise<Sent> {
    if (mayPass(status)) return { now: 'later' }
    if (status === 409) {
      conflict.value = { since: (problem as Conflict).since, more: (problem as Conflict).more, pending }
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
  const isOthers = () => undoesBy.value !== author.value || !(mine.value[id.value] ?? []).includes(version.value)

  const queue = useQueue(send)
  let stepping = false
  let asked = 0 // the version at which undoing another's change was asked about

  function hear(other: { version: number; author?: string; sentence?: string }) {
    // What is on its way here will be answered with the version it made, or meet a newer one.
    if (other.version <= version.value || queue.waiting.value.length || stepping || !plan.value) return
    void reload().then(() => {
      if (other.sentence) notice(`${other.author}: ${other.sentence}`)
    })
  }

  /** Asks for the version where changes may have been missed. */
  async function compare() {
    const asked = id.value
    try {
      const { data } = await api.GET('/api/sites/{id}/version', { params: { path: { id: asked } } })
      if (data && asked === id.value) hear(data)
    } catch {
      // The stream tells when the server is there again.
    }
  }
  useChanges(id, hear, () => void compare())

  function change(edits: Edit[], echo?: Echo, refused?: Pending['refused']) {
    queue.add({ edits, echo, refused })
  }

  const takeBack = (what: 'undo' | 'redo', key: string) =>
    api.POST(`/api/sites/{id}/${what}`, { params: { path: { id: id.value }, header: { 'Idempotency-Key': key } }, body: { version: version.value } })

  const steps = { undo: 'Undone', redo: 'Done again', return: 'Done' }

  /** Undoes, redoes or returns, once what is on its way has arrived. */
  async function step(what: keyof typeof steps, ask = (key: string) => takeBack(what as 'undo' | 'redo', key)) {
    if (queue.waiting.value.length || stepping) return
    if (what === 'undo' && undoesBy.value && isOthers() && asked !== version.value) {
      asked = version.value
      const whose = undoesBy.value === author.value ? `${undoesBy.value}’s, made in another browser` : `${undoesBy.value}’s`
      notice(`The last change is ${whose}: ${undoes.value}. Undo once more to take it back.`, { seconds: 6 })
      return
    }
    stepping = true
    const key = newKey()
    try {
      const { data, error, response } = await again(() => ask(key))
      if (data) {
        takeAnswer(data)
        notice(`${steps[what]}: ${data.sentence}`, { seconds: 2.5 })
      } else if (response.status === 409) {
        await reload()
        notice('The plan was changed in the meantime. Here it is as it stands now.', { seconds: 5 })
      } else {
        notice(inWords(error as Problem), { error: true })
      }
    } catch {
      notice('The server does not answer. Whether that was done shows when it is back.', { error: true })
    } finally {
      stepping = false
    }
  }

  /** Returns to an earlier revision, as a new one. */
  const returnTo = (revision: number) =>
    step('return', (key) =>
      api.POST('/api/sites/{id}/return', { params: { path: { id: id.value }, header: { 'Idempotency-Key': key } }, body: { version: version.value, revision } }),
    )

  /** Makes the change again that met a newer version, on that version. */
  function tryAgain() {
    if (conflict.value) change(conflict.value.pending.edits, conflict.value.pending.echo)
    conflict.value = undefined
  }

  const echoes = computed(() => queue.waiting.value.flatMap((p) => (p.echo ? [p.echo] : [])))
  const waitingOn = computed(() => new Set(echoes.value.flatMap((e) => e.channels))) // channels with a stroke on its way
  const largestKbps = computed(() => Math.max(1, ...[...figures.values()].map((f) => f.fullKbps)))
  const dutyList = computed(() => plan.value?.duties)
  const duties = computed(() => new Map((dutyList.value ?? []).map((d) => [d.id, d])))
  const channels = computed(() => new Map((plan.value?.channels ?? []).map((c) => [c.id, c])))

  return {
    id, version, undoes, undoesBy, redoes, plan, figures, ribbons, pools, recorders, verdict, year, tide, findings, opened, failure, unreadable, conflict,
    answered, loaded, largestKbps, duties, channels, echoes, waitingOn, state: queue.state, waiting: queue.waiting, aside: queue.aside, settle: queue.settle, open, close, reload, change, step, returnTo, tryAgain,
  }
})
