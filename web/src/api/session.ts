import { useStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'

import { author } from './author'
import type { components } from './schema'

export type Me = components['schemas']['Me']

/** Who is signed in, as the server last told; nothing until it did. Without accounts everybody is a planner. */
export const me = shallowRef<Me>()
/** Whether the server asks to sign in. */
export const signedOut = ref(false)
/** How often somebody came in: pages are made anew then. */
export const came = ref(0)
/** Tells the other tabs of the browser that somebody came or went. */
const turn = useStorage('wakefield-session', 0)

export function takeMe(now: Me) {
  // Who was signed in a moment ago may go on with what is in hand: the server asks to sign in before it is saved.
  const next = now.here || !me.value ? now : { ...me.value, here: false }
  if (JSON.stringify(next) !== JSON.stringify(me.value)) me.value = next // what is open at it stays open
  signedOut.value = now.accounts && !now.here
  if (now.accounts && now.here) author.value = now.name // who signed in is who makes a change
}

/** Somebody signed in or out here. */
export const told = () => turn.value++
watch(turn, () => hears.forEach((hear) => hear()))
const hears: (() => void)[] = []
/** Calls what is to be done when somebody came or went in another tab. */
export const onTurn = (hear: () => void) => hears.push(hear)

/** Whether whoever is here plans for the whole company. */
export const isPlanner = computed(() => !me.value || me.value.planner)

/** What whoever is here may do at a site. */
export function roleAt(site: string): 'planner' | 'fitter' | 'reader' | '' {
  if (isPlanner.value) return 'planner'
  return me.value!.roles.find((r) => r.site === site)?.role ?? ''
}
