import type { components } from '../api/schema'

type Schemas = components['schemas']

/** What is heard of the server: a change of a plan or of a site, or that some may have been missed. */
export type Heard =
  { kind: 'change'; change: Schemas['Changed'] } | { kind: 'site'; change: Schemas['SiteChanged'] } | { kind: 'missed' }

/** How long to wait before connecting anew, in milliseconds. */
const pause = 3000

/**
 * Follows the changes of all sites. The server shows regularly that it is there; where it does not for two and a half
 * times as long as it said, or ends the stream, it is connected to anew. Returns how to stop.
 */
export function openStream(hear: (heard: Heard) => void): () => void {
  let source: EventSource
  let timer: ReturnType<typeof setTimeout> | undefined

  function connect() {
    source = new EventSource('/api/changes')
    const told = <T>(name: string, take: (data: T) => void) =>
      source.addEventListener(name, (event) => take(JSON.parse((event as MessageEvent<string>).data) as T))
    told<Schemas['Changed']>('change', (change) => hear({ kind: 'change', change }))
    told<Schemas['SiteChanged']>('site', (change) => hear({ kind: 'site', change }))
    told<Schemas['Missed']>('missed', () => hear({ kind: 'missed' }))
    told<Schemas['Beat']>('beat', (beat) => expect(beat.seconds * 2500))
    source.addEventListener('error', () => expect(pause))
  }

  /** Connects anew unless there is a beat before. */
  function expect(within: number) {
    clearTimeout(timer)
    timer = setTimeout(() => {
      source.close()
      connect()
      expect(within)
    }, within)
  }

  connect()
  return () => {
    clearTimeout(timer)
    source.close()
  }
}
