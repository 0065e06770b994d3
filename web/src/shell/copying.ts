import { useEventListener } from '@vueuse/core'
import { defineComponent } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { useSite } from '../site/useSite'
import { notice } from '../ui/notice'

/** What of the page can be copied as cells: any table, and the verdict. */
const figures = 'table, .verdict'

const words = (e: Element) => {
  const field = e.querySelector<HTMLInputElement>('input, textarea')
  return (field ? field.value : (e as HTMLElement).innerText).replace(/\s+/g, ' ').trim()
}

/** A table as rows of texts; of the verdict each figure with its change and what it is of. */
export function cellsOf(e: Element): string[][] {
  if (e instanceof HTMLTableElement)
    return [...e.rows]
      .map((row) => [...row.cells].flatMap((c) => [words(c), ...Array.from({ length: c.colSpan - 1 }, () => '')]))
      .filter((row) => row.some(Boolean))
  return [...e.children].map((figure) => {
    const change = figure.querySelector('i')
    const named = [...figure.querySelectorAll(':scope > span')].map(words).join(' ')
    return [words(figure.querySelector('b') ?? figure), change ? words(change) : '', named]
  })
}

const escaped = (text: string) => text.replace(/[&<>]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[c]!)

/** Puts cells into what is copied: as text with tabs, and as a table for programs that know tables. */
export function putCells(into: DataTransfer, rows: string[][]) {
  into.setData('text/plain', rows.map((r) => r.join('\t')).join('\n'))
  const html = rows.map((r) => `<tr>${r.map((c) => `<td>${escaped(c)}</td>`).join('')}</tr>`).join('')
  into.setData('text/html', `<table>${html}</table>`)
}

/**
 * Ctrl+C with nothing marked copies the table that was pointed at last, or the verdict, as cells; Alt+Shift+L the
 * address of what is open.
 */
export default defineComponent({
  setup() {
    const site = useSite()
    const route = useRoute()
    const router = useRouter()
    let pointed: Element | null | undefined

    useEventListener(document, 'pointerdown', (event) => {
      pointed = (event.target as Element).closest?.(figures)
    })
    useEventListener(document, 'copy', (event: ClipboardEvent) => {
      if (event.defaultPrevented || String(getSelection()) || !event.clipboardData) return
      const active = document.activeElement
      if (active?.matches('input, textarea, select')) return
      const from = active?.closest(figures) ?? pointed
      if (!from?.isConnected) return
      const rows = cellsOf(from)
      putCells(event.clipboardData, rows)
      event.preventDefault()
      const what = from.matches('.verdict') ? 'The verdict was copied.' : `The table was copied, ${rows.length} rows.`
      notice(what)
    })

    /** The address of what is open. */
    function address(): string {
      const query = { ...route.query, variant: site.planId === site.adopted ? route.query.variant : site.planId }
      return location.origin + router.resolve({ name: String(route.name), params: route.params, query }).href
    }
    useEventListener(document, 'keydown', (event) => {
      if (!event.altKey || !event.shiftKey || event.code !== 'KeyL') return
      event.preventDefault()
      navigator.clipboard.writeText(address()).then(
        () => notice('The link to this was copied.'),
        () => notice(`The browser does not let it be copied: ${address()}`, { error: true, seconds: 12 }),
      )
    })

    return () => null
  },
})
