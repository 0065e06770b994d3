import { defineAsyncComponent, type Component } from 'vue'

const idle = window.requestIdleCallback ?? ((run: () => void) => setTimeout(run, 200))

let open: () => void
/** The page shows what it is about, or did not come to it. */
const isShown = new Promise<void>((done) => (open = done))
addEventListener('load', () => setTimeout(() => open(), 3000))

/** Tells that the page shows what it is about: what it did without is fetched from the next frame but one on. */
export const shown = () => requestAnimationFrame(() => requestAnimationFrame(() => open()))

/** What stands in the place of something that is not missed before the page shows what it is about. */
export const nothing = () => null

/**
 * A component that the first look at a page does without: it is fetched when it is shown, or as soon as the page has
 * time, so that it is there without a connection too. Where something stands in its place meanwhile, out of use, it is
 * not fetched before the page shows what it is about.
 */
export function later<T extends Component>(load: () => Promise<T | { default: T }>, meanwhile?: Component): T {
  void isShown.then(() => idle(() => void load().catch(() => undefined))) // whoever needs it asks again
  return defineAsyncComponent({
    loader: meanwhile ? () => isShown.then(load) : load,
    loadingComponent: meanwhile,
    delay: 0,
  }) as T
}
