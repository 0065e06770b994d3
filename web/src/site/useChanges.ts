import { useEventListener } from '@vueuse/core'
import { watch, type Ref } from 'vue'

import type { components } from '../api/schema'
import { hearPresent } from './present'
import { openStream, type Heard, type Stream } from './stream'

type Changed = components['schemas']['Changed']
type SiteChanged = components['schemas']['SiteChanged']

/** What becomes of what is heard. */
interface Ears {
  /** A plan of the site has another version. */
  changed: (change: Changed) => void
  /** Something about the site is otherwise, such as which variants there are. */
  site: (change: SiteChanged) => void
  /** Changes may have been missed. */
  missed: () => void
  /** Nothing can be saved now, or it can again. */
  away: (is: boolean) => void
}

const name = 'wakefield-changes'

/** What tabs say to each other: what is heard, which site one looks at, and that all are to say that. */
type Said = Heard | { kind: 'look'; site: string } | { kind: 'who' }

/**
 * Tells of every change of a site as it is made, by whomever and through whichever server, and of moments at which
 * some may have been missed. A browser gives a server six connections, so of all tabs one keeps a stream, whichever
 * holds the lock, for the sites that all of them look at, and passes on what it hears; when it is closed another takes
 * its place.
 */
export function useChanges(id: Ref<string>, ears: Ears) {
  const others = new BroadcastChannel(name)
  let leave: (() => void) | undefined
  let stream: Stream | undefined
  const looked = new Set<string>() // sites of all tabs, where this one keeps the stream

  /** Hears of a site too. */
  function look(site: string) {
    if (looked.has(site)) return
    looked.add(site)
    stream?.again()
  }

  function hear(heard: Heard) {
    if (!id.value) return
    if (heard.kind === 'missed') ears.missed()
    else if (heard.kind === 'away' || heard.kind === 'here') ears.away(heard.kind === 'away')
    else if (heard.kind === 'present') hearPresent(heard.present, id.value)
    else if (heard.change.site !== id.value) return
    else if (heard.kind === 'site') ears.site(heard.change)
    else ears.changed(heard.change)
  }
  others.onmessage = (event: MessageEvent<Said>) => {
    const said = event.data
    if (said.kind === 'look') {
      if (stream) look(said.site)
    } else if (said.kind === 'who') {
      if (id.value) others.postMessage({ kind: 'look', site: id.value })
    } else hear(said)
  }

  /** Keeps the stream for all tabs, until this one leaves. */
  function lead(): Promise<void> {
    return new Promise((resolve) => {
      looked.clear()
      looked.add(id.value)
      const mine = openStream(
        () => [...looked].slice(-50),
        (heard) => {
          others.postMessage(heard)
          hear(heard)
        },
      )
      stream = mine
      others.postMessage({ kind: 'who' })
      leave = () => {
        stream = undefined
        mine.stop()
        resolve()
      }
    })
  }

  function join() {
    if (leave) return
    if (!('locks' in navigator)) {
      void lead() // without encryption beyond this machine there are no locks; each tab has a stream then
      return
    }
    const waiting = new AbortController()
    leave = () => waiting.abort()
    navigator.locks.request(name, { signal: waiting.signal }, lead).catch(() => undefined)
  }

  function part() {
    leave?.()
    leave = undefined
  }

  watch(
    id,
    (site) => {
      if (!site) return
      join()
      if (stream) look(site)
      else others.postMessage({ kind: 'look', site })
    },
    { immediate: true },
  )
  // A page that is left may be kept asleep by the browser, and would keep the stream from the others.
  useEventListener(window, 'pagehide', part)
  useEventListener(window, 'pageshow', (event) => {
    if (!event.persisted || !id.value) return
    join()
    ears.missed()
  })
}
