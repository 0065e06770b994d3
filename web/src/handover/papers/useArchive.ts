import { ref } from 'vue'

import { away } from '../../api/ask'
import { api, inWords } from '../../api/client'
import { useSite } from '../../site/useSite'
import { notice } from '../../ui/notice'
import type { Size } from './usePaper'
import { useGoing } from '../../api/going'

/** How the entries of a zip archive begin. */
const mark = [0x50, 0x4b, 0x03, 0x04]

/** Fetches the archive of all papers, and tells how many of them are there; it can be stopped. */
export function useArchive() {
  const site = useSite()
  const done = ref(0)
  const all = ref(0)
  let stopping: AbortController | undefined

  async function fetchAll(query: { size: Size; recorder?: string[] }, name: string) {
    stopping = new AbortController()
    done.value = 0
    all.value = 1
    try {
      const { data, error, response } = await api.GET('/api/plans/{id}/papers', {
        params: { ...site.here, query },
        parseAs: 'stream',
        signal: stopping.signal,
      })
      if (!data) {
        notice(`No archive. ${inWords(error)}`, { error: true })
        return
      }
      all.value = Number(response.headers.get('Wakefield-Papers')) || 1
      const parts: Uint8Array<ArrayBuffer>[] = []
      const reader = (data as ReadableStream<Uint8Array<ArrayBuffer>>).getReader()
      let seen = 0
      for (;;) {
        const { value, done: end } = await reader.read()
        if (end) break
        parts.push(value)
        for (const byte of value) {
          seen = byte === mark[seen] ? seen + 1 : byte === mark[0] ? 1 : 0
          if (seen === mark.length) {
            done.value++
            seen = 0
          }
        }
      }
      if (done.value < all.value) {
        notice('The archive did not arrive whole. Nothing was saved; try again.', { error: true, seconds: 8 })
        return
      }
      const link = document.createElement('a')
      link.href = URL.createObjectURL(new Blob(parts, { type: 'application/zip' }))
      link.download = name
      link.click()
      setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
    } catch {
      if (!stopping.signal.aborted) notice(`No archive. ${away}`, { error: true })
    } finally {
      all.value = 0
      stopping = undefined
    }
  }

  const stop = () => stopping?.abort()
  const percent = () => (100 * done.value) / (all.value || 1)
  useGoing({ what: 'Writing all papers', percent, stop }, () => all.value > 0)
  return { done, all, fetchAll, stop }
}
