import { useEventListener } from '@vueuse/core'
import { watch, type Ref } from 'vue'

import type { components } from '../api/schema'

type Changed = components['schemas']['Changed']

/**
 * Tells of every change of a site as it is made, by whomever and through whichever server. The browser connects
 * again by itself; the first message after that is the version there is now.
 */
export function useChanges(id: Ref<string>, changed: (change: Changed) => void) {
  let source: EventSource | undefined

  function listen() {
    source?.close()
    source = undefined
    if (!id.value) return
    source = new EventSource(`/api/sites/${encodeURIComponent(id.value)}/changes`)
    source.addEventListener('change', (event) => changed(JSON.parse((event as MessageEvent<string>).data) as Changed))
  }

  watch(id, listen, { immediate: true })
  // A page that is left may be kept asleep by the browser, and would keep one of the few connections there are.
  useEventListener(window, 'pagehide', () => source?.close())
  useEventListener(window, 'pageshow', (event) => event.persisted && listen())
}
