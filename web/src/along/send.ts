import createClient from 'openapi-fetch'

import type { paths } from '../api/schema'
import type { Noted } from '../api/types'
import { along, type Waiting } from './store'

// The service worker sends too, where there is no page and no storage of it: it asks by a client of its own.
const api = createClient<paths>({ baseUrl: '/' })

/** What came of sending. */
export interface Sent {
  /** Nobody answered, the server is busy, or it asks to sign in: what waits stays. */
  status: 'sent' | 'away' | 'signedOut'
  /** The page that belongs to the server, where it answered. */
  page?: string
  kept: number
  refused: number
  /** Those that were not in the database and have arrived. */
  delivered: Waiting[]
}

/** Milliseconds by the clock that nobody sets. */
export const mono = () => performance.now()

function ageOf(w: Waiting, session: string): Pick<Noted, 'ageSeconds' | 'clock'> {
  if (w.session === session) return { ageSeconds: Math.max(0, (mono() - w.mono) / 1000), clock: 'monotonic' }
  return { ageSeconds: Math.max(0, (Date.now() - w.wall) / 1000), clock: 'phone' }
}

/** Of how many at once it is told. */
const batch = 100

let sending: Promise<Sent> | undefined

/**
 * Sends what waits, oldest first, each once, with more that the database has no room for. Two calls at once are one.
 */
export function send(session: string, more: Waiting[] = []): Promise<Sent> {
  return (sending ??= (async () => {
    try {
      // Of several pages and the service worker only one sends at a time.
      if (!('locks' in navigator)) return await all(session, more)
      return await navigator.locks.request('wakefield-send', () => all(session, more))
    } finally {
      sending = undefined
    }
  })())
}

async function all(session: string, more: Waiting[]): Promise<Sent> {
  const sent: Sent = { status: 'sent', kept: 0, refused: 0, delivered: [] }
  const db = await along()
  const byPlan = new Map<string, Waiting[]>()
  for (const w of [...(await db.getAll('waiting')), ...more])
    if (!w.refused) byPlan.set(w.plan, [...(byPlan.get(w.plan) ?? []), w])
  for (const [plan, list] of byPlan) {
    for (let i = 0; i < list.length; i += batch) {
      const status = await some(plan, list.slice(i, i + batch), session, sent)
      if (status === 200) continue
      sent.status = status === 401 ? 'signedOut' : 'away'
      return sent
    }
  }
  return sent
}

/** Sends some of one plan; the status tells whether to go on. */
async function some(plan: string, list: Waiting[], session: string, sent: Sent): Promise<number> {
  const records = list.filter((w) => 'record' in w.what)
  for (const w of records) {
    const status = await picture(plan, w)
    if (status !== 200) return status
  }
  const ready = records.filter((w) => !w.refused)
  if (ready.length) {
    const status = await notes(plan, ready, session, sent)
    if (status !== 200) return status
  }
  for (const w of list) {
    if (!('tick' in w.what)) continue
    const { recorder, keys, done } = w.what.tick
    const status = await asked(() =>
      api.POST('/api/plans/{id}/ticks', { params: { path: { id: plan }, header: {} }, body: { recorder, keys, done } }),
    )
    if (status.code === 200) await done200(w, sent)
    else if (isFinal(status.code)) await refuse(w, status.why, sent)
    else return status.code
  }
  return 200
}

/** Whether the server will never take it as it is: it says why, and somebody decides. */
const isFinal = (status: number) => status >= 400 && status < 500 && ![401, 408, 425, 429].includes(status)

async function asked<T>(question: () => Promise<{ data?: T; error?: unknown; response: Response }>) {
  try {
    const { data, error, response } = await question()
    const why = (error as { detail?: string } | undefined)?.detail ?? 'The server refused it.'
    return { code: response.ok ? 200 : response.status, data, why }
  } catch {
    return { code: 0, data: undefined, why: '' }
  }
}

async function done200(w: Waiting, sent: Sent) {
  if (w.seq == null) sent.delivered.push(w)
  else await (await along()).delete('waiting', w.seq)
  sent.kept++
}

/** Keeps what is known of something now, where it is in the database. */
const update = async (w: Waiting) => w.seq != null && (await along()).put('waiting', w).catch(() => undefined)

async function refuse(w: Waiting, why: string, sent: Sent) {
  w.refused = why
  await update(w)
  sent.refused++
}

/** Sends the picture of a photo first: the record names it by the id that the server gives. */
async function picture(plan: string, w: Waiting): Promise<number> {
  if (!('record' in w.what) || !w.what.photo) return 200
  const told = await asked(() =>
    api.POST('/api/plans/{id}/pictures', {
      params: { path: { id: plan } },
      headers: { 'Content-Type': 'application/octet-stream' },
      body: ('record' in w.what ? w.what.photo : undefined) as unknown as string,
      bodySerializer: (body: unknown) => body as Blob,
    }),
  )
  if (isFinal(told.code)) {
    await refuse(w, told.why, { status: 'sent', kept: 0, refused: 0, delivered: [] })
    return 200
  }
  if (told.code !== 200) return told.code
  w.what.record.photo!.picture = told.data!.id
  delete w.what.photo
  await update(w)
  return 200
}

async function notes(plan: string, list: Waiting[], session: string, sent: Sent): Promise<number> {
  const records: Noted[] = list.map((w) => ({
    ...('record' in w.what ? w.what.record : ({} as never)),
    ...ageOf(w, session),
  }))
  const by = records.find((r) => r.by)?.by
  const told = await asked(() =>
    api.POST('/api/plans/{id}/walked', {
      params: { path: { id: plan }, header: by ? { 'Wakefield-Author': encodeURIComponent(by) } : {} },
      body: { records },
    }),
  )
  if (isFinal(told.code) && list.length === 1) {
    await refuse(list[0]!, told.why, sent)
    return 200
  }
  if (isFinal(told.code)) {
    // One of them is not as the server wants it: each is sent by itself, so that the others are not held up.
    for (const w of list) {
      const status = await notes(plan, [w], session, sent)
      if (status !== 200) return status
    }
    return 200
  }
  if (!told.data) return told.code
  sent.page = told.data.page
  for (const w of list) {
    const id = 'record' in w.what ? w.what.record.id : ''
    const no = told.data.refused.find((r) => r.id === id)
    if (no) await refuse(w, no.why, sent)
    else if (told.data.kept.includes(id)) await done200(w, sent)
  }
  return 200
}
