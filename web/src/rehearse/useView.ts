import { ref, watch, type Ref } from 'vue'

/** How many seconds are in view at least, and how many at first. */
const SHORTEST = 10
const FIRST = 86_400 // below all days

/** What of the days is in view, in seconds since the first midnight, and where the play head is. */
export function useView(seconds: Ref<number>, firstDay: () => number) {
  const view = ref({ from: 0, to: FIRST })
  const head = ref(0)

  watch(seconds, (s) => {
    const untouched = view.value.from === 0 && view.value.to === FIRST
    const first = firstDay()
    if (view.value.to > s || untouched) view.value = { from: 0, to: Math.min(s, first) }
    head.value = Math.min(head.value, s)
  })

  /** Brings a moment into view, at the zoom there is. */
  function show(at: number, wide?: number) {
    const half = (wide ?? view.value.to - view.value.from) / 2
    const middle = Math.max(half, Math.min(seconds.value - half, at))
    view.value = { from: Math.max(0, middle - half), to: Math.min(seconds.value, middle + half) }
  }
  /** Looks closer, by a factor, at a moment that stays where it is. */
  function zoom(by: number, at = (view.value.from + view.value.to) / 2) {
    const now = view.value.to - view.value.from
    const wide = Math.min(seconds.value, Math.max(SHORTEST, now / by))
    const share = (at - view.value.from) / now
    const start = Math.max(0, Math.min(seconds.value - wide, at - share * wide))
    view.value = { from: start, to: start + wide }
  }
  function pan(by: number) {
    const wide = view.value.to - view.value.from
    const start = Math.max(0, Math.min(seconds.value - wide, view.value.from + by))
    view.value = { from: start, to: start + wide }
  }
  /** Puts the play head somewhere in the days. */
  function seek(at: number) {
    head.value = Math.max(0, Math.min(seconds.value, at))
  }
  const showAll = () => (view.value = { from: 0, to: seconds.value })

  return { view, head, show, zoom, pan, seek, showAll }
}
