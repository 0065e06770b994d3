import { computed, ref, shallowRef } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import { me, signedOut } from '../api/session'
import type { WalkCamera, WalkRecord } from '../api/types'
import { along, type Taken } from '../along/store'
import { recent, useWaiting } from './useWaiting'

const taken = shallowRef<Taken>()
const sites = shallowRef<Taken[]>([])
const pictures = shallowRef(new Map<string, string>())
/** How far taking along is: words, and a share of 1. */
const going = ref<{ words: string; share: number }>()
const failure = ref('')

async function load(plan: string) {
  const db = await along()
  taken.value = await db.get('taken', plan)
  sites.value = await db.getAll('taken')
  const urls = new Map<string, string>()
  for (const key of await db.getAllKeys('pictures')) {
    if (!key.startsWith(plan + '/')) continue
    const id = key.slice(plan.length + 1) // which never shows anything else
    urls.set(id, pictures.value.get(id) ?? URL.createObjectURL((await db.get('pictures', key))!))
  }
  pictures.value = urls
}

const megabytes = (bytes: number) => (bytes < 1e5 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`)

/** Takes a site along: its walks, steps and pictures, so that no network is needed from then on. */
async function take(plan: string): Promise<boolean> {
  failure.value = ''
  going.value = { words: 'Asking what there is…', share: 0 }
  try {
    return await fetchAll(plan)
  } catch {
    failure.value =
      'The phone has no room for it. Free some, and take it along again; what was here before is here still.'
    return false
  } finally {
    going.value = undefined
  }
}

let stopped = false
let running: Promise<unknown> | undefined
/** Takes nothing along any more, and waits until what is on its way has ended: the phone is about to be emptied. */
export async function stopTaking() {
  stopped = true
  await running?.catch(() => undefined)
}

function fetchAll(plan: string): Promise<boolean> {
  const mine = fetchNow(plan)
  running = mine
  return mine
}

async function fetchNow(plan: string): Promise<boolean> {
  const params = { params: { path: { id: plan } } }
  const there = new Set(recent.value) // what the answer has in it
  const [test, sheets] = await Promise.all([
    ask(api.GET('/api/plans/{id}/walk-test', params)),
    ask(api.GET('/api/plans/{id}/sheets', params)),
  ])
  if (!test.data || !sheets.data) {
    if (test.status !== 401) failure.value = test.problem || sheets.problem
    return false
  }
  const { serversPage } = useWaiting()
  serversPage.value = test.data.page
  const db = await along()
  const here = new Set(await db.getAllKeys('pictures'))
  const named = [...new Set(test.data.cameras.flatMap((c) => c.picture ?? []))]
  const missing = named.filter((p) => !here.has(`${plan}/${p}`))
  let done = 0
  const one = async (picture: string) => {
    const told = await ask(
      api.GET('/api/plans/{id}/pictures/{picture}', { params: { path: { id: plan, picture } }, parseAs: 'blob' }),
    )
    if (told.data && !stopped) await db.put('pictures', told.data as unknown as Blob, `${plan}/${picture}`)
    done++
    if (going.value)
      going.value = {
        words: `Pictures: ${done} of ${missing.length}, ${megabytes(test.data!.pictureBytes)} in all`,
        share: done / missing.length,
      }
  }
  const left = [...missing]
  await Promise.all(
    Array.from({ length: 6 }, async () => {
      for (let next = left.shift(); next; next = left.shift()) await one(next)
    }),
  )
  for (const key of here)
    if (key.startsWith(plan + '/') && !named.includes(key.slice(plan.length + 1))) await db.delete('pictures', key)
  const bytes = test.data.pictureBytes + JSON.stringify(test.data).length + JSON.stringify(sheets.data).length
  if (stopped) return false
  await db.put('taken', {
    plan,
    test: test.data,
    sheets: sheets.data,
    at: Date.now(),
    behind: new Date(test.data.now).getTime() - Date.now(),
    bytes,
    person: me.value?.accounts ? me.value.id : '',
  })
  void navigator.storage?.persist?.().catch(() => undefined)
  await load(plan)
  recent.value = recent.value.filter((w) => !there.has(w))
  return true
}

let renewing = false
/** Asks whether anything changed, and takes it along anew beneath what is shown: what is typed stays. */
async function renew() {
  const plan = taken.value?.plan
  if (!plan || going.value || renewing || signedOut.value) return
  renewing = true
  try {
    await fetchAll(plan)
  } catch {
    // What was here before is here still, and the next time is soon.
  } finally {
    renewing = false
  }
}

/** The time now by the server's clock, as far as the phone knows it. */
const now = () => Date.now() + (taken.value?.behind ?? 0)

/** The site that was taken along. */
export function useTaken() {
  const { waiting } = useWaiting()
  /** All that was seen: by everybody as far as the server told, then what waits here. */
  const records = computed((): WalkRecord[] => {
    if (!taken.value) return []
    const told = taken.value.test.records
    const ids = new Set(told.map((r) => r.id))
    const mine = [...recent.value, ...waiting.value].flatMap((w): WalkRecord[] => {
      if (w.plan !== taken.value!.plan || !('record' in w.what) || ids.has(w.what.record.id)) return []
      return [{ ...w.what.record, clock: 'phone', at: new Date(w.wall + taken.value!.behind).toISOString() }]
    })
    return [...told, ...mine]
  })
  const asides = computed(() => new Set(records.value.flatMap((r) => (r.aside ? [r.about] : []))))
  const of = (about: string) => records.value.filter((r) => r.about === about && !asides.value.has(r.id))
  const camera = (channel: string): WalkCamera | undefined =>
    taken.value?.test.cameras.find((c) => c.channel === channel)
  const picture = (c: WalkCamera) => (c.picture ? pictures.value.get(c.picture) : undefined)
  const clocks = computed(
    () => new Map(records.value.flatMap((r) => (r.error ? [[r.about, r.error.seconds] as const] : []))),
  )
  return { taken, sites, going, failure, load, take, renew, now, records, of, camera, picture, clocks, megabytes }
}
