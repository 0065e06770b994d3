import { computed, watch } from 'vue'
import { useRoute } from 'vue-router'

import { usePut } from '../site/useInAddress'
import { useSite } from '../site/useSite'

const pad = (n: number) => String(n).padStart(2, '0')

/** The Monday after today, as a date. */
function nextMonday() {
  const d = new Date()
  d.setDate(d.getDate() + ((8 - d.getDay()) % 7 || 7))
  return `${d.getFullYear()}-${pad(d.getMonth() + 1)}-${pad(d.getDate())}`
}

/** What was played last of each plan: there one goes on who comes back to the page. */
const lastPlayed = new Map<string, { from: string; days: number; number: number }>()

/** Which days are played out, and by which number: in the address, so that two people see the same week. */
export function useDays() {
  const site = useSite()
  const route = useRoute()
  const put = usePut()
  const last = lastPlayed.get(site.planId)
  const from = computed(() => String(route.query.from ?? last?.from ?? nextMonday()))
  const days = computed(() => Number(route.query.days ?? last?.days ?? 7) || 7)
  const number = computed(() => Number(route.query.number ?? last?.number ?? 1) || 1)
  watch(
    [from, days, number],
    () => lastPlayed.set(site.planId, { from: from.value, days: days.value, number: number.value }),
    { immediate: true },
  )
  const texts = (change: object) => Object.fromEntries(Object.entries(change).map(([key, v]) => [key, String(v)]))
  const go = (change: { from?: string; days?: number; number?: number }) =>
    put({ from: from.value, days: String(days.value), number: String(number.value), ...texts(change) })
  const another = () => go({ number: number.value + 1 })
  const query = computed(() => ({ from: from.value, days: days.value, number: number.value }))
  return { from, days, number, query, go, another }
}
