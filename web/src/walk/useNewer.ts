import { computed, ref, watch } from 'vue'

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
  const { serversPage, due, sendNow } = useWaiting()
  const newer = computed(
    () => ready.value || (serversPage.value !== '' && own.endsWith('.js') && serversPage.value !== own),
  )
  async function takeOver() {
    await sendNow()
    if (registration.value?.waiting) registration.value.waiting.postMessage('take over')
    else location.reload()
  }
  if (!started) {
    started = true
    void begin()
    watch(serversPage, (page) => page && page !== own && void registration.value?.update().catch(() => undefined))
    // Nothing waits and nobody walks: it may take over by itself.
    watch(
      [ready, due],
      () =>
        ready.value &&
        !due.value.length &&
        !location.hash.startsWith('#run') &&
        !location.hash.startsWith('#footage') &&
        void takeOver(),
    )
  }
  return { newer, takeOver }
}
