/// <reference lib="webworker" />
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

import { send } from '../along/send'

// Keeps the page for phones, and nothing that the server tells: what was taken along lies in the database of the phone,
// which is emptied when somebody signs out. A newer page takes over when the page says so, once what waits is sent.
declare const self: ServiceWorkerGlobalScope

precacheAndRoute(self.__WB_MANIFEST)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/walk.html'), { allowlist: [/^\/walk(\/|$)/] }))

self.addEventListener('message', (event) => {
  if (event.data === 'take over') void self.skipWaiting()
})

/** The browser has a network again, and the page may be closed. */
interface SyncEvent extends ExtendableEvent {
  tag: string
}
self.addEventListener('sync', (event) => {
  const sync = event as SyncEvent
  if (sync.tag === 'walked')
    sync.waitUntil(
      send('').then((sent) => {
        if (sent.status === 'away') throw new Error('nobody answered') // the browser tries again
      }),
    )
})
