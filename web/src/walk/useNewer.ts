import { computed, ref, watch } from 'vue'

import { pause } from '../api/again'
import { useWaiting } from './useWaiting'

/** The script of this page, by which it is told from others. */
const own = decodeURIComponent(new URL(import.meta.url).pathname.replace(/^\/assets\//, ''))
const registration = ref<ServiceWorkerRegistration>()
const ready = ref(false) // whether a newer page is here, and waits to take over
let started = false

async function begin() {
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return
  const here = await navigator.serviceWorker.register('/worker.js', { scope: '/walk/' }).catch(() => undefined)
  if (!here) return
  registration.value = here
  ready.value = !!here.waiting && !!navigator.serviceWorker.controller
  here.addEventListener('updatefound', () => {
    const next = here.installing
    next?.addEventListener('statechange', () => {
      if (next.state === 'installed' && navigator.serviceWorker.controller) ready.value = true
    })
  })
  let had = !!navigator.serviceWorker.controller
  navigator.serviceWorker.addEventListener('controllerchange', () => {
    if (had) location.reload()
    had = true
  })
}

/**
 * Whether the server has a newer page than this one. An old page takes nothing along from a newer server: what waits is
 * sent, then the newer page takes over.
 */
export function useNewer() {
  const { serversPage, due, connected, sendNow } = useWaiting()
  const newer = computed(
    () => ready.value || (serversPage.value !== '' && own.endsWith('.js') && serversPage.value !== own),
  )
  async function takeOver(still: () => boolean = () => true) {
    await sendNow()
    registration.value?.waiting?.postMessage('take over')
    // The old worker may be busy with something that does not end, and the new one waits for it. Where the server can
    // be reached the page does without either for once, and begins anew; else the new one comes when it can.
    await pause(2000)
    if (!connected.value || !still()) return
    await registration.value?.unregister()
    location.reload()
  }
  if (!started) {
    started = true
    void begin()
    watch(serversPage, (page) => page && page !== own && void registration.value?.update().catch(() => undefined))
    // Nothing waits, and the list of cameras is open, where nothing is typed: it may take over by itself.
    const isIdle = () => ready.value && !due.value.length && /^#?(list)?$/.test(location.hash)
    watch([ready, due], () => isIdle() && void takeOver(isIdle))
  }
  return { newer, takeOver }
}
