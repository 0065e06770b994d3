import { defineStore } from 'pinia'
import { computed, ref } from 'vue'

import { mayPass, patience, pause } from '../api/again'
import { ask } from '../api/ask'
import { api } from '../api/client'
import { roleAt, signedOut } from '../api/session'
import type { Answer } from '../api/types'
import { notice } from '../ui/notice'
import { useChanges } from './useChanges'
import { gone, useSending } from './useSending'
import { useShown } from './useShown'
import { useSteps } from './useSteps'

/**
 * The site in hand: which plan of it is open, as the server last told it; the changes on their way to it, and what
 * others do to it meanwhile.
 */
export const useSite = defineStore('site', () => {
  const id = ref('')
  let wanted = '' // the plan that was asked for
  const failure = ref('')
  const failed = ref(0) // the status of that
  const unreadable = ref(false) // whether what is stored is beyond this program
  const handed = ref(0) // how often somebody did something of the sheets
  const unheard = ref(false) // whether the server, or its database, does not answer
  const since = ref(new Date()) // when it last did
  const held = useShown()
  const { takeSite, takeView, takeAnswer, ...shown } = held
  const { plan, planId, variants, version, mark, here } = shown

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
    const query = { plan: variant || undefined }
    const told = await ask(api.GET('/api/sites/{id}', { params: { path: { id: asked }, query } }))
    if (asked !== id.value || variant !== wanted) return // left in the meantime
    failure.value = told.problem
    failed.value = told.status
    unreadable.value = told.error?.type === 'wakefield:unreadable'
    if (told.data) {
      takeSite(told.data.site)
      takeView(told.data.plan)
    } else if (unreadable.value) planId.value = variant || asked
  }

  /** Asks which variants there are, as others may have made some. */
  async function lookForVariants() {
    const asked = id.value
    const told = await ask(api.GET('/api/sites/{id}/plans', { params: { path: { id: asked } } }))
    if (told.data && asked === id.value) takeSite(told.data)
  }

  /** Takes the answer to something that was done here. */
  function take(answer: Answer) {
    const what = takeAnswer(answer)
    if (what === 'taken') steps.made(answer.made)
    else if (what === 'elsewhere') void reload()
  }

  const reader = { take, reload, restored }
  const sending = useSending(held, reader)
  const { queue, conflict, tryAgain, echoes, waitingOn } = sending
  const steps = useSteps(held, sending, reader)
  let restoring = false

  /** Drops all that was known of a history that is gone; what is in hand is kept, and its owner asked. */
  async function restored() {
    if (restoring) return
    restoring = true
    queue.putAside(gone)
    conflict.value = undefined
    shown.opened.value = undefined
    steps.forget()
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
    if (other.version <= version.value || queue.waiting.value.length || steps.busy() || !plan.value) return
    void reload().then(() => {
      if (other.sentence) notice(`${other.author}: ${other.sentence}`)
    })
  }

  /** Asks for the version where changes may have been missed. */
  async function catchUp() {
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
    site: (change) =>
      change.what === 'handover' || change.what === 'measured' || change.what === 'devices'
        ? void handed.value++
        : void lookForVariants(),
    missed: () => void catchUp(),
    away(is) {
      if (is && !unheard.value) since.value = new Date()
      unheard.value = is
    },
  })
  /** Whether nothing can be saved now, and nothing of others is heard. */
  const away = computed(() => !signedOut.value && (unheard.value || queue.state.value === 'away'))
  const role = computed(() => roleAt(id.value)) // of whoever is here

  /** Sends a change, where whoever is here may make one. */
  const change: typeof sending.change = (...what) => {
    if (role.value === 'planner') return sending.change(...what)
    notice(`Not changed: you are a ${role.value} of this site, and its planners change the plan.`, { error: true })
  }

  /** Ids for new things of a kind, made of their names; nothing, and a notice, where the server is away. */
  async function freeIds(kind: string, ...names: string[]): Promise<string[] | undefined> {
    const told = await ask(api.POST('/api/plans/{id}/ids', { params: here.value, body: { kind, names } }))
    if (!told.data) notice(`${told.problem} Nothing was changed.`, { error: true })
    return told.data?.ids
  }

  const { state, waiting, aside, settle } = queue
  const { step, returnTo, takeBack } = steps
  const ofSending = {
    conflict,
    change,
    tryAgain,
    echoes,
    waitingOn,
    state,
    waiting,
    aside,
    settle,
    step,
    returnTo,
    takeBack,
  }
  return {
    id,
    ...shown,
    ...ofSending,
    failure,
    unreadable,
    handed,
    away,
    role,
    since,
    lookForVariants,
    open,
    close,
    reload,
    freeIds,
  }
})
