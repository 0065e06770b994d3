import { ref, type Ref } from 'vue'

/** Picking rows of a list: one, beside the others, or all between; by pointer and by keyboard. */
export function usePicking(picked: Ref<string[]>, order: Ref<string[]>, reveal: (key: string) => void) {
  const at = ref('') // the row that the keyboard is on
  let anchor = ''

  function pick(key: string, how: 'alone' | 'beside' | 'through') {
    at.value = key
    if (how === 'through' && anchor) {
      const [a, b] = [order.value.indexOf(anchor), order.value.indexOf(key)].sort((x, y) => x - y) as [number, number]
      picked.value = order.value.slice(Math.max(0, a), b + 1)
      return
    }
    anchor = key
    const others = picked.value.filter((k) => k !== key)
    if (how === 'beside') picked.value = others.length < picked.value.length ? others : [...others, key]
    else picked.value = picked.value.length === 1 && !others.length ? [] : [key]
  }
  const click = (event: MouseEvent, key: string) =>
    pick(key, event.shiftKey ? 'through' : event.ctrlKey || event.metaKey ? 'beside' : 'alone')

  function key(event: KeyboardEvent) {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 12, PageUp: -12, Home: -1e6, End: 1e6 }[event.key]
    if (by) {
      const from = order.value.indexOf(at.value)
      const start = from < 0 && by > 0 ? -1 : from
      const to = order.value[Math.max(0, Math.min(order.value.length - 1, start + by))]
      if (!to) return
      if (event.shiftKey) {
        anchor ||= at.value || to
        pick(to, 'through')
      } else at.value = to
      reveal(to)
    } else if (event.key === ' ' && at.value) pick(at.value, 'beside')
    else if (event.key === 'Enter' && at.value) pick(at.value, 'alone')
    else if (event.key === 'Escape' && picked.value.length) picked.value = []
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) picked.value = [...order.value]
    else return
    event.preventDefault()
    event.stopPropagation()
  }

  return { at, click, key }
}
