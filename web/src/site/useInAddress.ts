import { nextTick, watch, type Ref } from 'vue'
import { useRoute, useRouter, type Router } from 'vue-router'

import { notice } from '../ui/notice'

let waiting: { page: unknown; query: Record<string, string | undefined>; push: boolean } | undefined

/** Puts texts into the address of the page that is open; what is put in one turn becomes one step. */
function put(router: Router, texts: Record<string, string | undefined>, push: boolean) {
  const page = router.currentRoute.value.name
  if (!waiting) {
    waiting = { page, query: {}, push: false }
    void nextTick(() => {
      const { page, query, push } = waiting!
      waiting = undefined
      const now = router.currentRoute.value
      if (now.name !== page) return // the page was left in the same turn
      void router[push ? 'push' : 'replace']({ query: { ...now.query, ...query }, hash: now.hash })
    })
  }
  for (const [key, text] of Object.entries(texts)) waiting.query[key] = text || undefined
  waiting.push ||= push
}

/** Puts several things into the address of a page at once, as one step. */
export function usePut() {
  const router = useRouter()
  return (texts: Record<string, string | undefined>) => put(router, texts, true)
}

const notThere = (what: string, name: string) =>
  notice(`The address names ${what} that is not there, “${name}”. Shown is what there is.`, { seconds: 8 })

/** Says once that the address names what is not there, when it is known what there is. */
export function useNamed(what: string, name: Ref<string>, isThere: () => boolean | undefined) {
  const first = name.value
  if (!first) return
  const stop = watch(
    isThere,
    (there) => {
      if (there === undefined) return
      if (!there && name.value === first) notThere(what, first)
      void nextTick(() => stop())
    },
    { immediate: true },
  )
}

/**
 * Keeps something of a page in its address, both ways: a link brings it, back and forward go through it where it is a
 * step of its own, and what is as it is at first stands in no address. Where one names a thing that is not there, and
 * what sort of thing it is is given, that is said.
 */
export function useInAddress(key: string, state: Ref<string | undefined>, step = false, what = '') {
  const route = useRoute()
  const router = useRouter()
  const page = route.name
  const read = () => (route.name === page ? String(route.query[key] ?? '') : undefined)
  const first = read()
  if (first) state.value = first
  if (first && what && state.value !== first) notThere(what, first)
  watch(read, (text) => {
    if (text !== undefined && text !== (state.value ?? '')) state.value = text
  })
  watch(state, (text) => {
    if (route.name === page && (text ?? '') !== read()) put(router, { [key]: text }, step)
  })
}
