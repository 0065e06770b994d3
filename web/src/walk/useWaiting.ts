import { computed, ref, shallowRef } from 'vue'

import { author } from '../api/author'
import { newKey } from '../api/again'
import { loadMe } from '../api/me'
import { me, signedOut } from '../api/session'
import type { WalkRecord } from '../api/types'
import { mono, send } from '../along/send'
import { along, type Waiting } from '../along/store'
import { session } from './moment'

type Said = Pick<WalkRecord, 'walk' | 'trial' | 'error' | 'decision' | 'photo' | 'signature' | 'aside'>

const waiting = shallowRef<Waiting[]>([])
/** Notes that the phone has no room for: they are in hand as long as the page is open, and sent first. */
const unsaved = shallowRef<Waiting[]>([])
const full = ref(false)
/** What has arrived at the server and is not yet among what it told: it is shown meanwhile. */
export const recent = shallowRef<Waiting[]>([])
const connected = ref(navigator.onLine)
const busy = ref(false)
/** The page that belongs to the server, once it told. */
const serversPage = ref('')
/** How often something arrived at the server: what it says is asked for anew. */
const arrived = ref(0)

async function look() {
  waiting.value = [...(await (await along()).getAll('waiting')), ...unsaved.value]
}

/** What waits as plain data; a photo stays what it is. */
function plain(what: Waiting['what']): Waiting['what'] {
  const copy = JSON.parse(JSON.stringify(what)) as Waiting['what']
  if ('record' in what && 'record' in copy && what.photo) copy.photo = what.photo
  return copy
}

async function put(list: Omit<Waiting, 'wall' | 'mono' | 'session'>[], when?: number) {
  const now = when == null ? { wall: Date.now(), mono: mono(), session } : { wall: when, mono: 0, session: '' }
  const db = await along()
  for (const [i, w] of list.entries()) {
    // In their order, and without what follows the page: a database takes plain things.
    const one: Waiting = { ...w, what: plain(w.what), ...now, wall: now.wall + i }
    try {
      await db.add('waiting', one)
    } catch {
      full.value = true
      unsaved.value = [...unsaved.value, one]
    }
  }
  await look()
  void sendNow()
  await inBackground()
}

/** Asks the browser to send when there is a network, also when the page is closed, where it can. */
async function inBackground() {
  const worker = await navigator.serviceWorker?.getRegistration('/walk/')
  const sync = (worker as unknown as { sync?: { register(tag: string): Promise<void> } } | undefined)?.sync
  await sync?.register('walked').catch(() => undefined)
}

/** Keeps something that was seen or decided; it is sent when it can be. */
export async function note(plan: string, revision: number, about: string, said: Said, photo?: Blob): Promise<string> {
  const id = newKey()
  await put([{ plan, what: { record: { id, about, revision, by: nameNow(), ...said }, photo } }])
  return id
}

/** Keeps something of an earlier time, by the phone's clock. */
export async function noteOf(plan: string, revision: number, about: string, said: Said, when: number): Promise<string> {
  const id = newKey()
  await put([{ plan, what: { record: { id, about, revision, by: nameNow(), ...said } } }], when)
  return id
}

/** Keeps more of what was noted before, in its place and of its time: what is kept does not change. */
export async function complete(plan: string, before: WalkRecord, said: Said, when: number): Promise<string> {
  const id = await noteOf(plan, before.revision, before.about, said, when)
  await note(plan, before.revision, before.id, { aside: { reason: 'Completed.' } })
  return id
}

/** Keeps that steps of a sheet are done, or not after all. */
export async function tick(plan: string, recorder: string, keys: string[], done: boolean, words: string) {
  await put([{ plan, what: { tick: { recorder, keys, done, words } } }])
}

/** Who holds the phone. */
export const nameNow = () => (me.value?.accounts && me.value.name ? me.value.name : author.value) || 'Fitter'

/** Sends what waits, and says whether there is a connection. */
async function sendNow() {
  if (busy.value) return
  busy.value = true
  try {
    await unsavedFirst()
    await look()
    const before = waiting.value
    const sent = await send(session, unsaved.value)
    unsaved.value = unsaved.value.filter((w) => !sent.delivered.includes(w))
    full.value = unsaved.value.length > 0
    connected.value = sent.status !== 'away'
    if (sent.status === 'signedOut') signedOut.value = true
    if (sent.page) serversPage.value = sent.page
    await look()
    const still = new Set(waiting.value.map((w) => w.seq))
    const gone = before.filter((w) => (w.seq == null ? sent.delivered.includes(w) : !still.has(w.seq)))
    recent.value = [...recent.value, ...gone]
    if (sent.kept) arrived.value++
  } finally {
    busy.value = false
  }
}

/** What the phone had no room for is tried again: sending others may have made some. */
async function unsavedFirst() {
  for (const w of unsaved.value) {
    try {
      await (await along()).add('waiting', w)
      unsaved.value = unsaved.value.filter((u) => u !== w)
    } catch {
      return
    }
  }
}

/** Tries to send again what the server refused: somebody may have changed what kept it out. */
async function retry() {
  const db = await along()
  for (const w of await db.getAll('waiting')) if (w.refused) await db.put('waiting', { ...w, refused: undefined })
  unsaved.value.forEach((w) => delete w.refused)
  await look()
  await sendNow()
}

/** Takes something that the server refused away, once somebody has seen why. */
async function drop(w: Waiting) {
  unsaved.value = unsaved.value.filter((u) => u !== w)
  if (w.seq != null) await (await along()).delete('waiting', w.seq)
  await look()
}

let started = false
/** What waits to be sent. It is tried when the network comes back, when the page is looked at, and every so often. */
export function useWaiting() {
  if (!started) {
    started = true
    void look()
    const tried = async () => {
      if (!me.value?.here) await loadMe()
      await sendNow()
    }
    window.addEventListener('online', () => void tried())
    window.addEventListener('offline', () => (connected.value = false))
    document.addEventListener('visibilitychange', () => document.hidden || void tried())
    setInterval(() => (waiting.value.some((w) => !w.refused) || !connected.value) && void sendNow(), 5000)
    void tried()
  }
  const refused = computed(() => waiting.value.filter((w) => w.refused))
  const due = computed(() => waiting.value.filter((w) => !w.refused))
  return { waiting, due, refused, full, connected, busy, serversPage, arrived, sendNow, retry, drop, look }
}
