import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

import type { Sheets, WalkRecord, WalkTest } from '../api/types'

/** A site that was taken along. */
export interface Taken {
  plan: string
  test: WalkTest
  sheets: Sheets
  /** When, by the phone's clock, and how far that is behind the server's, in milliseconds. */
  at: number
  behind: number
  bytes: number
  /** Whose it is; nothing without accounts. */
  person: string
}

/** Something that was noted and is not sent yet. */
export interface Waiting {
  /** The order in which they are sent. */
  seq?: number
  plan: string
  what:
    | { record: Omit<WalkRecord, 'clock'>; photo?: Blob }
    | { tick: { recorder: string; keys: string[]; done: boolean; words: string } }
  /** When, by the phone's clock, and by one that nobody sets: that counts within a session of the page. */
  wall: number
  mono: number
  session: string
  /** Why the server did not take it; it is kept until somebody decides. */
  refused?: string
}

/** A walk that goes on, or was cut short: what was tapped until now. */
export interface Draft {
  plan: string
  channel: string
  walk: string
  started: number
  minute: number
  sign?: number
  noSign?: boolean
  out?: number
  key: string
  planned: (number | null)[]
}

interface Along extends DBSchema {
  taken: { key: string; value: Taken }
  pictures: { key: string; value: Blob }
  waiting: { key: number; value: Waiting; indexes: { plan: string } }
  drafts: { key: string; value: Draft }
}

const name = 'wakefield-along'
let opened: Promise<IDBPDatabase<Along>> | undefined

/** The database of the phone. What is in it survives the page, the battery and a new page. */
export function along(): Promise<IDBPDatabase<Along>> {
  return (opened ??= openDB<Along>(name, 1, {
    upgrade(db) {
      db.createObjectStore('taken', { keyPath: 'plan' })
      db.createObjectStore('pictures')
      db.createObjectStore('waiting', { keyPath: 'seq', autoIncrement: true }).createIndex('plan', 'plan')
      db.createObjectStore('drafts')
    },
    // A newer page needs the database otherwise, or somebody signed out.
    blocking: () => void opened?.then((db) => db.close()).then(() => (opened = undefined)),
  }))
}

/** How much waits here to be sent; 0 where nothing was ever taken along. */
export async function waitingHere(): Promise<number> {
  const there = await indexedDB.databases()
  if (!there.some((d) => d.name === name)) return 0
  return (await along()).count('waiting')
}

/** Empties the phone: sites, pictures, and what waits. */
export async function emptyHere() {
  if (!(await indexedDB.databases()).some((d) => d.name === name)) return
  const db = await along()
  const all = db.transaction(['taken', 'pictures', 'waiting', 'drafts'], 'readwrite')
  await Promise.all([
    ...(['taken', 'pictures', 'waiting', 'drafts'] as const).map((store) => all.objectStore(store).clear()),
    all.done,
  ])
}

/** Takes away what another person took along; what waits stays. */
export async function onlyOf(person: string) {
  const db = await along()
  for (const t of await db.getAll('taken'))
    if (t.person !== person) {
      await db.delete('taken', t.plan)
      for (const key of await db.getAllKeys('pictures'))
        if (key.startsWith(t.plan + '/')) await db.delete('pictures', key)
    }
}
