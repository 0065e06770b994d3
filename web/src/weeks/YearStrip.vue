<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { SpecialDay } from '../api/types'
import { useSite } from '../site/useSite'

/** A year, a strip for each month: special days stand out, a click or a drag makes one. */
const year = defineModel<number>({ required: true })
const props = defineProps<{ days: SpecialDay[]; chosen: number }>()
const site = useSite()
const emit = defineEmits<{ add: [from: string, to: string]; choose: [index: number] }>()

const iso = (month: number, day: number) =>
  `${year.value}-${String(month + 1).padStart(2, '0')}-${String(day).padStart(2, '0')}`
const monthName = new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' })

/** Where in the list the special day of each date stands. */
const { data: dates } = useAnswer(
  () => [year.value, props.days],
  () => api.GET('/api/plans/{id}/special-days/dates', { params: { ...site.here, query: { year: year.value } } }),
  { keep: true },
)
const first = computed(() => Date.UTC(dates.value?.year ?? year.value, 0, 1))
const holding = (date: string) => dates.value?.holding[(Date.parse(date) - first.value) / 86_400_000] ?? -1

const months = computed(() =>
  Array.from({ length: 12 }, (_, month) => ({
    name: monthName.format(Date.UTC(year.value, month, 1)),
    days: Array.from({ length: new Date(Date.UTC(year.value, month + 1, 0)).getUTCDate() }, (_, i) => {
      const date = iso(month, i + 1)
      const weekday = new Date(Date.UTC(year.value, month, i + 1)).getUTCDay()
      return { day: i + 1, date, rest: weekday === 0 || weekday === 6, index: holding(date) }
    }),
  })),
)

const from = ref('')
const to = ref('')
const held = (date: string) =>
  from.value && date >= [from.value, to.value].sort()[0]! && date <= [from.value, to.value].sort()[1]!

function down(date: string) {
  from.value = to.value = date
  addEventListener('pointerup', up, { once: true })
}

function up() {
  const [a, b] = [from.value, to.value].sort() as [string, string]
  const index = holding(a)
  from.value = to.value = ''
  if (a === b && index >= 0) emit('choose', index)
  else if (a) emit('add', a, b)
}

function key(event: KeyboardEvent, date: string, index: number) {
  const moves: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -30, ArrowDown: 30 }
  if (event.key === 'Enter' || event.key === ' ') {
    if (index >= 0) emit('choose', index)
    else emit('add', date, date)
  } else if (moves[event.key]) {
    const next = new Date(Date.parse(date) + moves[event.key]! * 86400000).toISOString().slice(0, 10)
    document.querySelector<HTMLElement>(`[data-date="${next}"]`)?.focus()
  } else return
  event.preventDefault()
}
</script>

<template>
  <section class="year" :aria-label="`The year ${year}`">
    <p class="head">
      <button type="button" class="plain-button" aria-label="The year before" @click="year--">◂</button>
      <b>{{ year }}</b>
      <button type="button" class="plain-button" aria-label="The year after" @click="year++">▸</button>
    </p>
    <div v-for="(m, i) in months" :key="m.name" class="month">
      <span class="soft">{{ m.name }}</span>
      <button
        v-for="d in m.days"
        :key="d.day"
        type="button"
        class="day"
        :tabindex="i === 0 && d.day === 1 ? 0 : -1"
        :data-date="d.date"
        :class="{ rest: d.rest, special: d.index >= 0, chosen: d.index >= 0 && d.index === chosen, held: held(d.date) }"
        :aria-label="`${d.day} ${m.name} ${year}${d.index >= 0 ? `: ${days[d.index]!.name}` : ''}`"
        :title="d.index >= 0 ? days[d.index]!.name : undefined"
        @pointerdown="down(d.date)"
        @pointerenter="from && (to = d.date)"
        @keydown="key($event, d.date, d.index)"
      >
        {{ d.day }}
      </button>
    </div>
  </section>
</template>

<style scoped>
.year {
  user-select: none;
}

.head {
  display: flex;
  gap: 6px;
  margin: 0 0 6px;
  font-size: var(--heading);
}

.month {
  display: grid;
  grid-template-columns: 40px repeat(31, minmax(0, 32px));
  line-height: var(--field);
  font-size: var(--second);
}

.day {
  height: var(--field);
  padding: 0;
  border: 0;
  border-right: 1px solid var(--paper);
  border-bottom: 2px solid var(--paper);
  background: var(--sheet);
  color: var(--soft);
  font-size: var(--axis);
  cursor: pointer;
}

.day.rest {
  background: var(--band);
}

.day.special {
  background: repeating-linear-gradient(
    135deg,
    color-mix(in srgb, var(--base) 30%, var(--sheet)) 0 2px,
    var(--sheet) 2px 5px
  );
  color: var(--ink);
  font-weight: 600;
}

.day.chosen,
.day.held {
  outline: 2px solid var(--base);
  outline-offset: -2px;
}

@media (max-width: 500px) {
  .month {
    grid-template-columns: 30px repeat(31, minmax(0, 1fr));
  }

  .day {
    font-size: 0;
  }
}
</style>
