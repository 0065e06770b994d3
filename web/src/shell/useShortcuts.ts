import { useEventListener } from '@vueuse/core'
import { useRouter } from 'vue-router'

import { useSite } from '../site/useSite'
import { useVariants } from '../site/useVariants'
import { pages } from './pages'

/**
 * Keys on every page of a site: Alt+Shift and a letter go to a page, with V to the next variant; Ctrl+Z and Ctrl+Y (or
 * Ctrl+Shift+Z) undo and redo, except in a field that is being typed in.
 */
export function useShortcuts() {
  const site = useSite()
  const router = useRouter()
  const variants = useVariants()
  useEventListener(document, 'keydown', (event) => {
    const page = event.altKey && event.shiftKey && pages.find((p) => event.code === `Key${p.key}`)
    if (event.altKey && event.shiftKey && event.code === 'KeyV') {
      event.preventDefault()
      variants.next()
    }
    if (page) {
      event.preventDefault()
      void router.push({ name: page.name })
    }
    if (!(event.ctrlKey || event.metaKey) || (event.target as HTMLElement).matches('input, textarea, select')) return
    const key = event.key.toLowerCase()
    if (key === 'z' || key === 'y') {
      event.preventDefault()
      void site.step(key === 'y' || event.shiftKey ? 'redo' : 'undo')
    }
  })
}
