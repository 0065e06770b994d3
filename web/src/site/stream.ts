import { watch } from 'vue'

import { loadMe } from '../api/me'
import { signedOut } from '../api/session'
import type { components } from '../api/schema'

type Schemas = components['schemas']

/**
 * What is heard of the server: a change of a plan or of a site, that some may have been missed; that nothing can be
 * saved, and that it can again.
 */
export type Heard =
  | { kind: 'change'; change: Schemas['Changed'] }
  | { kind: 'site'; change: Schemas['SiteChanged'] }
  | { kind: 'present'; present: Schemas['Presence'] }
  | { kind: 'missed' }
  | { kind: 'away' }
  | { kind: 'here' }

/**
 * How long to wait before connecting anew after one failed, for the first beat of one, and until a stream that ended
 * means that the server is away, in ms.
 */
const pause = 1000
const first = 5000
const patience = 2500

/** A stream that is open. */
export interface Stream {
  /** Begins anew with the sites as they are now. */
  again: () => void
  stop: () => void
}

/**
 * Follows the changes of some sites: thousands may be worked on that nobody here looks at. The server shows regularly
 * that it is there; where it does not for three times as long as it said, it is away, and where it ended the stream and
 * no other is had soon.
 */
export function openStream(sites: () => string[], hear: (heard: Heard) => void): Stream {
  let source: EventSource | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let doubt: ReturnType<typeof setTimeout> | undefined
  let anew: ReturnType<typeof setTimeout> | undefined // until it begins with other sites, which no beat may call off
  let away = false

  function say(is: boolean) {
    clearTimeout(doubt)
    doubt = undefined
    if (is !== away) hear({ kind: is ? 'away' : 'here' })
    away = is
  }

  function connect() {
    if (signedOut.value) return // until somebody signs in nothing is heard
    const now = new EventSource(
      `/api/changes?${new URLSearchParams([['passOver', 'true'], ...sites().map((id) => ['site', id])])}`,
    )
    source = now
    const told = <T>(name: string, take: (data: T) => void) =>
      now.addEventListener(name, (event) => take(JSON.parse((event as MessageEvent<string>).data) as T))
    told<Schemas['Changed']>('change', (change) => hear({ kind: 'change', change }))
    told<Schemas['SiteChanged']>('site', (change) => hear({ kind: 'site', change }))
    told<Schemas['Presence']>('present', (present) => hear({ kind: 'present', present }))
    told<Schemas['Missed']>('missed', () => hear({ kind: 'missed' }))
    told<Schemas['Beat']>('beat', (beat) => {
      say(!!beat.away)
      expect(beat.seconds * 3000, true)
    })
    now.addEventListener('error', () => {
      if (now.readyState === EventSource.CLOSED) void loadMe() // it was refused: perhaps nobody is signed in any more
      doubt ??= setTimeout(() => say(!signedOut.value), patience)
      expect(pause)
    })
  }

  /** Connects anew unless there is a beat before, and says that nobody answers where one was due. */
  function expect(within: number, due = false) {
    clearTimeout(timer)
    timer = setTimeout(() => {
      if (due) say(!signedOut.value)
      begin()
    }, within)
  }

  /** Connects anew, with the sites as they are. */
  function begin() {
    clearTimeout(anew)
    anew = undefined
    source?.close()
    connect()
    expect(first)
  }

  connect()
  const back = watch(signedOut, (out) => out || expect(0))
  return {
    again: () => (anew ??= setTimeout(begin, 50)),
    stop: () => {
      back()
      clearTimeout(timer)
      clearTimeout(doubt)
      clearTimeout(anew)
      source?.close()
    },
  }
}
