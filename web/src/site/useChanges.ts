import { watch, type Ref } from 'vue'

import type { components } from '../api/schema'

type Changed = components['schemas']['Changed']

/**
 * Tells of every change of a site as it is made, by whomever and through whichever server. The browser connects
 * again by itself; the first message after that is the version there is now.
 */
export function useChanges(id: Ref<string>, changed: (change: Changed) => void) {
  watch(
    id,
    (site, _, cleanUp) => {
      if (!site) return
      const source = new EventSource(`/api/sites/${encodeURIComponent(site)}/changes`)
      source.addEventListener('change', (event) => changed(JSON.parse((event as MessageEvent<string>).data) as Changed))
      cleanUp(() => source.close())
    },
    { immediate: true },
  )
}
