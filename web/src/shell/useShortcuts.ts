import { useEventListener } from '@vueuse/core'
import { useRouter } from 'vue-router'

import { useSite } from '../site/useSite'
import { useTurning } from '../site/useTurning'
import { pages } from './pages'

/** Whether a question is open, which is answered before anything else happens; one that fades has been answered. */
const isAsking = () =>
  [...document.querySelectorAll<HTMLElement>('[role=dialog], [role=alertdialog]')].some(
    (d) => d.checkVisibility() && !d.closest('[class*=leave-active]'),
  )

/**
 * Keys on every page of a site: Alt+Shift and a letter go to a page, with V to the next variant; Ctrl+Z and Ctrl+Y (or
 * Ctrl+Shift+Z) undo and redo, except in a field that is being typed in.
 */
export function useShortcuts() {
  const site = useSite()
  const router = useRouter()
  const variants = useTurning()
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
    const target = event.target as HTMLElement
    const typing = target.matches('input, textarea') && !target.matches('[readonly], [type=checkbox], [type=radio]')
    if (!(event.ctrlKey || event.metaKey) || typing || isAsking()) return
    const key = event.key.toLowerCase()
    if (key === 'z' || key === 'y') {
      event.preventDefault()
      void site.step(key === 'y' || event.shiftKey ? 'redo' : 'undo')
    }
  })
}
