import { getCurrentScope, onScopeDispose, shallowReactive, watch } from 'vue'

/** Something that goes on: what it is in words, how far it has got, and how it is stopped where it can be. */
export interface Going {
  what: string
  percent?: () => number | undefined
  stop?: () => void
}

const SOON = 400 // milliseconds: what is there sooner is not told of

/** All that goes on longer than a blink, in the order in which it began. */
export const going = shallowReactive(new Set<Going>())

/** Tells in the one place for it what goes on, while it does. */
export function useGoing(it: Going, on: () => boolean) {
  let timer: ReturnType<typeof setTimeout> | undefined
  const end = () => {
    clearTimeout(timer)
    going.delete(it)
  }
  watch(
    on,
    (is) => {
      end()
      if (is) timer = setTimeout(() => going.add(it), SOON)
    },
    { immediate: true },
  )
  if (getCurrentScope()) onScopeDispose(end)
}
