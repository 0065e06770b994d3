import { shallowRef } from 'vue'

import type { components } from '../api/schema'

export type Present = components['schemas']['Presence']

/** Those who have a page of the site open elsewhere, as they last said, newest last. */
export const others = shallowRef<(Present & { at: number })[]>([])

/** What is to be done when somebody comes who was not there. */
let greet: (() => void) | undefined
export const onArrival = (then: typeof greet) => void (greet = then)

/** Takes what somebody says, or forgets who left; one's own browser is nobody else. */
let own = ''
export const isOwn = (browser: string) => void (own = browser)
export function hearPresent(p: Present, site: string) {
  if (!own || p.site !== site || p.who.startsWith(own)) return
  const before = others.value.filter((o) => o.who !== p.who)
  if (!p.gone && before.length === others.value.length) greet?.()
  others.value = p.gone ? before : [...before, { ...p, at: Date.now() }]
}

/** The first letters of a name's words, two at most. */
export const initials = (name: string) =>
  name
    .split(/\s+/)
    .flatMap((word) => [...word].slice(0, 1))
    .slice(0, 2)
    .join('')
    .toUpperCase()
