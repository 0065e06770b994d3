<script setup lang="ts">
import { useEventListener, useIntervalFn, watchDebounced } from '@vueuse/core'
import { computed, onUnmounted } from 'vue'
import { useRoute } from 'vue-router'

import { newKey } from '../api/again'
import { ask } from '../api/ask'
import { api } from '../api/client'
import { signedOut } from '../api/session'
import { useHand } from '../hand/useHand'
import { initials, isOwn, onArrival, others, type Present } from '../site/present'
import { useSite } from '../site/useSite'
import { pages } from './pages'

/** Who else has the site open, quietly, by their initials; and says that one is here oneself. */
const site = useSite()
const hand = useHand()
const route = useRoute()

/** One's own browser, and this tab of it. */
const kept = 'wakefield-browser'
const browser = localStorage.getItem(kept) ?? newKey().slice(0, 16)
localStorage.setItem(kept, browser)
const tab = 'wakefield-tab'
const who = `${browser}-${sessionStorage.getItem(tab) ?? newKey().slice(0, 12)}`
sessionStorage.setItem(tab, who.slice(browser.length + 1))
isOwn(browser)

const often = 20_000
/** Of whom nothing was heard for this long is gone: a phone that was put away says nothing. */
const patience = 3 * often

const about = computed(() => {
  if (route.name === 'week' || route.name === 'kit') return hand.selected.length === 1 ? hand.selected[0] : undefined
  return String(route.query.channel ?? route.query.about ?? '') || undefined
})
function say(gone = false, id = site.id) {
  if (!id || !site.planId || signedOut.value || site.away) return
  const body = { who, plan: site.planId, page: String(route.name ?? ''), about: about.value, gone: gone || undefined }
  const params = { path: { id }, header: {} }
  if (!gone) return void ask(api.POST('/api/sites/{id}/present', { params, body }))
  // A page that is closing asks nothing any more; the browser carries this to the server.
  navigator.sendBeacon(
    `/api/sites/${encodeURIComponent(id)}/present`,
    new Blob([JSON.stringify(body)], { type: 'application/json' }),
  )
}
watchDebounced([() => site.id, () => site.planId, () => route.name, about, signedOut], () => say(), {
  debounce: 250,
  immediate: true,
})
// Who comes hears who is here already.
onArrival(() => say())
useIntervalFn(() => {
  const now = Date.now()
  others.value = others.value.filter((o) => now - o.at < patience)
  if (!document.hidden) say()
}, often)
useEventListener(window, 'pagehide', () => say(true))
useEventListener(window, 'pageshow', (event) => event.persisted && say())
onUnmounted(() => {
  say(true)
  onArrival(undefined)
  others.value = []
})

/** One mark a person, the newest of their tabs. */
const people = computed(() => [
  ...new Map(others.value.filter((o) => o.site === site.id).map((o) => [o.name + o.who.slice(0, 16), o])).values(),
])
const most = 4
const where = (o: Present) => {
  const page = pages.find((p) => p.name === o.page)?.title ?? o.page
  const thing = o.about && (site.channels.get(o.about)?.name ?? '')
  const variant =
    o.plan === site.planId ? '' : `, in ${site.variants.find((v) => v.id === o.plan)?.name ?? 'another variant'}`
  return `${o.name}: ${page}${thing ? `, ${thing}` : ''}${variant}`
}
</script>

<template>
  <ul v-if="people.length" class="others" aria-label="Who else is here" data-test="others">
    <li v-for="o in people.slice(0, most)" :key="o.who" :title="where(o)">
      <span aria-hidden="true">{{ initials(o.name) }}</span><span class="visually-hidden">{{ where(o) }}</span>
    </li>
    <li v-if="people.length > most" :title="people.slice(most).map(where).join('\n')">+{{ people.length - most }}</li>
  </ul>
</template>

<style scoped>
.others {
  display: flex;
  gap: 4px;
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  min-width: 24px;
  height: 24px;
  display: grid;
  place-items: center;
  padding: 0 4px;
  border: 1px solid var(--soft);
  border-radius: 50%;
  font-size: var(--axis);
  color: var(--soft);
  cursor: default;
}
</style>
