import { first } from './kept'
import { learn, names } from './names'
import { differs, habits } from './now'
import { turned } from './turn'
import { hourWritten, written } from './write'

/*
 * The one place through which all text of the page goes, whoever made it: the page's own figures, sentences of the
 * server, words of the components. The browser tells of every text that changed before it is drawn, and what looks
 * like a time of day or a number in it is written as its reader writes it.
 */

const LABELS = ['title', 'aria-label', 'aria-valuetext', 'placeholder', 'alt']
/** What is somebody's own, or is read by programs. */
const KEPT_AS_IT_IS = 'textarea, script, style, code, pre, [contenteditable], [data-own]'

function ofText(node: Text) {
  const element = node.parentElement
  const text = node.nodeValue ?? ''
  if (!element || !/\d/.test(text) || element.closest(KEPT_AS_IT_IS)) return
  const isHour = habits.is12 && element.dataset.hour !== undefined && /^\d{1,2}$/.test(text)
  const now = isHour ? hourWritten(Number(text)) : written(text, habits, names())
  if (now !== text) node.nodeValue = now
}

function ofLabels(element: Element) {
  for (const label of LABELS) {
    const text = element.getAttribute(label)
    const now = text && written(text, habits, names())
    if (now !== text) element.setAttribute(label, now!)
  }
}

function over(root: Node) {
  if (root instanceof Text) return ofText(root)
  if (!(root instanceof Element)) return
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT | NodeFilter.SHOW_ELEMENT)
  for (let node: Node | null = root; node; node = walker.nextNode()) {
    if (node instanceof Text) ofText(node)
    else if (node instanceof Element) ofLabels(node)
  }
}

if (differs) {
  const observer = new MutationObserver((records) => {
    for (const record of records) {
      if (record.type === 'attributes') ofLabels(record.target as Element)
      else if (record.type === 'characterData') ofText(record.target as Text)
      else record.addedNodes.forEach(over)
    }
    observer.takeRecords() // those of what was written here
  })
  over(document.documentElement)
  observer.observe(document, {
    subtree: true,
    childList: true,
    characterData: true,
    attributeFilter: LABELS,
  })
}

/** An answer of the server as its reader counts the week, once the names in it are known. */
export async function heard(response: Response): Promise<Response | undefined> {
  if (!response.body || !/\bjson\b/.test(response.headers.get('Content-Type') ?? '')) return undefined
  const text = await response.text()
  if (differs) learn(text)
  const body = first ? JSON.stringify(turned(JSON.parse(text || 'null'), first * 1440)) : text
  return new Response(body, { status: response.status, statusText: response.statusText, headers: response.headers })
}
