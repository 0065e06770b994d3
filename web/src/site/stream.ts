import type { components } from '../api/schema'

type Schemas = components['schemas']

/** What is heard of the server: a change, or that it is heard again, after which nobody knows what was missed. */
export type Heard = { kind: 'change'; change: Schemas['Changed'] } | { kind: 'open' }

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
    source.addEventListener('open', () => hear({ kind: 'open' }))
    source.addEventListener('change', (event) =>
      hear({ kind: 'change', change: JSON.parse((event as MessageEvent<string>).data) as Schemas['Changed'] }),
    )
    source.addEventListener('beat', (event) =>
      expect((JSON.parse((event as MessageEvent<string>).data) as Schemas['Beat']).seconds * 2500),
    )
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
