import type { Operation } from 'fast-json-patch'
import { ElMessage } from 'element-plus'
import { defineStore } from 'pinia'
import { computed, ref, shallowReactive, shallowRef } from 'vue'

import { author } from '../api/author'
import { api, inWords } from '../api/client'
import type {
  Answer, Conflict, Edit, Figures, Finding, Plan, PoolFigures, Problem, RecorderFigures, Ribbon, Tide, Verdict, View,
} from '../api/types'
import type { Span } from '../week/time'
import { patched } from './patch'
import { useChanges } from './useChanges'
import { useQueue } from './useQueue'

/** A stroke that is drawn before the server has answered. */
export interface Echo {
  channels: string[]
  spans: Span[]
  duty: string
}

/** A change on its way to the server. */
export interface Pending {
  edits: Edit[]
  echo?: Echo
  /** Is told when the change is refused, and then says so itself. */
  refused?: (problem: Problem) => void
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
  const failure = ref('')
  const answered = shallowRef<Answer>() // the last answer, for those who keep more of it
  const loaded = ref(0) // how often the site was read whole
  const conflict = shallowRef<{ since: Conflict['since']; pending: Pending }>()

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
    try {
      const asked = id.value
      const { data, error } = await api.GET('/api/sites/{id}', { params: { path: { id: asked } } })
      if (asked !== id.value) return // left in the meantime
      if (data) takeView(data)
      else failure.value = inWords(error)
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
    tide.value = answer.tide
    findings.value = answer.findings
    answered.value = answer
  }

  /** Sends one change. Only what may go better later is a failure; a refusal is shown and dropped. */
  async function send(pending: Pending): Promise<'done' | 'later'> {
    try {
      const { data, error, response } = await api.POST('/api/sites/{id}/edits', {
        params: { path: { id: id.value } },
        body: { version: version.value, edits: pending.edits },
      })
      if (data) {
        takeAnswer(data)
        return 'done'
      }
      return await refused(response.status, error as Problem, pending)
    } catch {
      return 'later'
    }
  }

  async function refused(status: number, problem: Problem, pending: Pending): Promise<'done' | 'later'> {
    if (status === 409) {
      conflict.value = { since: (problem as Conflict).since, pending }
      await reload()
    } else if (status >= 500) {
      return 'later'
    } else if (pending.refused) {
      pending.refused(problem)
    } else {
      ElMessage({ message: `Not changed. ${inWords(problem)}`, type: 'error', duration: 8000, showClose: true })
    }
    return 'done'
  }

  const queue = useQueue(send)
  let stepping = false
  let asked = 0 // the version at which undoing another's change was asked about

  useChanges(id, (other) => {
    // What is on its way here will be answered with the version it made, or meet a newer one.
    if (other.version <= version.value || queue.waiting.value.length || stepping || !plan.value) return
    void reload().then(() => {
      if (other.sentence) ElMessage({ message: `${other.author}: ${other.sentence}`, duration: 4000, showClose: true })
    })
  })

  function change(edits: Edit[], echo?: Echo, refused?: Pending['refused']) {
    queue.add({ edits, echo, refused })
  }

  const takeBack = (what: 'undo' | 'redo') =>
    api.POST(`/api/sites/{id}/${what}`, { params: { path: { id: id.value } }, body: { version: version.value } })

  const steps = {
    undo: { done: 'Undone', not: 'Nothing was undone.' },
    redo: { done: 'Done again', not: 'Nothing was done again.' },
    return: { done: 'Done', not: 'The plan is as it was.' },
  }

  /** Undoes, redoes or returns, once what is on its way has arrived. */
  async function step(what: keyof typeof steps, ask = () => takeBack(what as 'undo' | 'redo')) {
    if (queue.waiting.value.length || stepping) return
    if (what === 'undo' && undoesBy.value && undoesBy.value !== author.value && asked !== version.value) {
      asked = version.value
      ElMessage({ message: `The last change is ${undoesBy.value}’s: ${undoes.value}. Undo once more to take it back.`, duration: 6000, showClose: true })
      return
    }
    stepping = true
    try {
      const { data, error, response } = await ask()
      if (data) {
        takeAnswer(data)
        ElMessage({ message: `${steps[what].done}: ${data.sentence}`, duration: 2500 })
      } else if (response.status === 409) {
        await reload()
        ElMessage({ message: 'The plan was changed in the meantime. Here it is as it stands now.', duration: 5000 })
      } else {
        ElMessage({ message: inWords(error as Problem), type: 'error' })
      }
    } catch {
      ElMessage({ message: `The server does not answer. ${steps[what].not}`, type: 'error' })
    } finally {
      stepping = false
    }
  }

  /** Returns to an earlier revision, as a new one. */
  const returnTo = (revision: number) =>
    step('return', () =>
      api.POST('/api/sites/{id}/return', { params: { path: { id: id.value } }, body: { version: version.value, revision } }),
    )

  /** Makes the change again that met a newer version, on that version. */
  function tryAgain() {
    if (conflict.value) change(conflict.value.pending.edits, conflict.value.pending.echo)
    conflict.value = undefined
  }

  const echoes = computed(() => queue.waiting.value.flatMap((p) => (p.echo ? [p.echo] : [])))
  const largestKbps = computed(() => Math.max(1, ...[...figures.values()].map((f) => f.fullKbps)))
  const dutyList = computed(() => plan.value?.duties)
  const duties = computed(() => new Map((dutyList.value ?? []).map((d) => [d.id, d])))
  const channels = computed(() => new Map((plan.value?.channels ?? []).map((c) => [c.id, c])))

  return {
    id, version, undoes, undoesBy, redoes, plan, figures, ribbons, pools, recorders, verdict, tide, findings, opened, failure, conflict,
    answered, loaded, largestKbps, duties, channels, echoes, state: queue.state, waiting: queue.waiting, open, close, reload, change, step, returnTo, tryAgain,
  }
})
