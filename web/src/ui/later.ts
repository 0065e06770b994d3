import { defineAsyncComponent, type Component } from 'vue'

const asked: (() => Promise<unknown>)[] = []

/** Fetches one thing after the other, whenever the page has nothing better to do. */
function fetchIdly() {
  const idle = window.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 200))
  idle(() => {
    const next = asked.shift()
    if (next) void next().then(fetchIdly, () => undefined) // whoever needs it asks again
  })
}
addEventListener('load', fetchIdly)

/**
 * A component that the first look at a page does without: it is fetched when it is shown, or as soon as the page has
 * time, so that it is there without a connection too. What stands in its place until then is out of use.
 */
export function later<T extends Component>(load: () => Promise<{ default: T }>, meanwhile?: Component): T {
  asked.push(load)
  if (document.readyState === 'complete') fetchIdly()
  return defineAsyncComponent({ loader: load, loadingComponent: meanwhile, delay: 0 }) as T
}
