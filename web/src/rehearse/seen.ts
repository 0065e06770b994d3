import { refDebounced } from '@vueuse/core'
import { computed, type Ref } from 'vue'

import { joined, parted } from '../site/asText'
import type { Pointed } from './rows'

/** What is seen of played-out days, as an address has it: in whole seconds since the first midnight. */
const whole = (text: string | undefined) => {
  const n = Number(text)
  return text && Number.isFinite(n) && n >= 0 ? n : undefined
}

/** The stretch in view; while it is dragged nothing is said. */
export function viewText(view: Ref<{ from: number; to: number }>) {
  const settled = refDebounced(view, 400)
  return computed<string | undefined>({
    get: () => {
      const { from, to } = settled.value
      const isFirst = !from && Math.abs(to - 86_400) <= 3600 // the first day, as it is shown at first
      return isFirst ? undefined : joined([Math.round(from), Math.round(to)])
    },
    set: (text) => {
      const [from, to] = parted(text).map(whole)
      if (from !== undefined && to !== undefined && to - from >= 10) view.value = { from, to }
    },
  })
}

/** The play head, where it stands still. */
export function momentText(head: Ref<number>) {
  const settled = refDebounced(head, 400)
  return computed<string | undefined>({
    get: () => (settled.value ? String(Math.round(settled.value)) : undefined),
    set: (text) => (head.value = whole(text) ?? 0),
  })
}

/** The event that is pointed at: of which channel, which one, when and for how long. */
export function pointedText(pointed: Ref<Pointed | undefined>, point: (p: Pointed) => void) {
  return computed<string | undefined>({
    get: () => {
      const p = pointed.value
      return p && joined([p.channel, p.event, p.start, p.length ?? ''])
    },
    set: (text) => {
      const [channel, ...rest] = parted(text)
      const [event, start, length] = rest.map(whole)
      if (channel === undefined || event === undefined || start === undefined) pointed.value = undefined
      else point({ channel, event, start, length })
    },
  })
}
