<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, nextTick, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { came, me, signedOut } from './api/session'
import { useHand } from './hand/useHand'
import { useTheme } from './theme/useTheme'
import { later } from './ui/later'
import { useOnce } from './ui/useOnce'

const CommandBox = later(async () => (await import('./shell/reserve')).CommandBox)
const ShortcutSheet = later(async () => (await import('./shell/reserve')).ShortcutSheet)
const SignInScreen = later(() => import('./people/SignInScreen.vue'))
const route = useRoute()
const hand = useHand() // a stroke in hand is not covered: it is let go first
/** Pages for who has no account yet, or none at all. */
const isPublic = computed(() => !!route.meta.public)
/** When somebody came in, pages are made anew: the old ones go before the new ones come. */
const there = ref(true)
watch(came, async () => {
  there.value = false
  await nextTick()
  there.value = true
})

/** Where the company asks for a second proof, everything but one's own account waits for it. */
const router = useRouter()
watch(
  () => me.value?.setUp && !isPublic.value && route.name !== 'account',
  (must) => must && void router.replace({ name: 'account' }),
)
const finding = ref(false)
const keys = ref(false)
const found = useOnce(() => finding.value)
const read = useOnce(() => keys.value)

/** Ctrl+K finds, "?" has keys, gestures and our own words. */
useEventListener(document, 'keydown', (event) => {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') finding.value = !finding.value
  else if (event.key === '?' && !(event.target as HTMLElement).closest('input, textarea, select'))
    keys.value = !keys.value
  else return
  event.preventDefault()
})

/** Goes over everything that stands on every page: to the grid where there is one, else to what the page is about. */
function skip() {
  const main = document.querySelector<HTMLElement>('main [role="grid"]') ?? document.querySelector<HTMLElement>('main')
  if (!main) return
  if (!main.hasAttribute('tabindex')) main.tabIndex = -1
  main.focus()
}
useTheme()
</script>

<template>
  <nav aria-label="Skip"><button type="button" class="skip" @click="skip">Skip to the content</button></nav>
  <RouterView v-if="there" />
  <SignInScreen v-if="signedOut && !isPublic && !hand.stroke" />
  <section aria-label="Find, and keys">
    <CommandBox v-if="found" v-model="finding" @help="keys = true" />
    <ShortcutSheet v-if="read" v-model="keys" />
  </section>
</template>
