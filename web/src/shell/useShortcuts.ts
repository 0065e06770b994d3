import { useEventListener } from '@vueuse/core'

import { useSite } from '../site/useSite'

/** Ctrl+Z and Ctrl+Y (or Ctrl+Shift+Z) on every page of a site, except in a field that is being typed in. */
export function useShortcuts() {
  const site = useSite()
  useEventListener(document, 'keydown', (event) => {
    if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).matches('input, textarea, select')) return
    const key = event.key.toLowerCase()
    if (key === 'z' || key === 'y') {
      event.preventDefault()
      void site.step(key === 'y' || event.shiftKey ? 'redo' : 'undo')
    }
  })
}
