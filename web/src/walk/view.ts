import { useEventListener } from '@vueuse/core'
import { computed, ref } from 'vue'

/** What the phone shows: a name and what it is about, in the address behind the #: back and forward go through it. */
const hash = ref(location.hash.slice(1))

/** Id of the plan in the path; empty on the list of sites. */
export const planHere = decodeURIComponent(location.pathname.split('/')[2] ?? '')

export function useView() {
  useEventListener(window, 'hashchange', () => {
    hash.value = location.hash.slice(1)
    window.scrollTo(0, 0)
  })
  const parts = computed(() => hash.value.split('/').map(decodeURIComponent))
  return { name: computed(() => parts.value[0] || 'list'), about: computed(() => parts.value.slice(1)) }
}

export const addressOf = (...parts: string[]) => '#' + parts.map(encodeURIComponent).join('/')

/** Shows something else. In place of what is shown, where back would lead to something that is over. */
export function show(parts: string[], instead = false) {
  if (instead) location.replace(addressOf(...parts))
  else location.hash = addressOf(...parts)
}
