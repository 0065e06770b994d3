<script setup lang="ts">
import { ElSwitch } from 'element-plus'
import { computed } from 'vue'

import { limitsOf } from '../api/format'
import type { SpecialDay, Weekday } from '../api/types'
import { asRead } from '../habits/now'
import { useSite } from '../site/useSite'
import { dayNames, weekdays } from '../time/week'
import ChoiceField from '../ui/ChoiceField.vue'
import DateField from '../ui/DateField.vue'
import { readNumber } from '../ui/number'
import { vTyped } from '../ui/typed'

/** One special day: its dates, which duties hold, how much happens. */
const props = defineProps<{ day: SpecialDay }>()
const emit = defineEmits<{ change: [day: SpecialDay]; remove: []; refuse: [why: string] }>()
const site = useSite()

const holds = computed(() => [
  ['', 'its own duties'] as const,
  ...weekdays.map((d, i) => [`day ${d}`, `as on a ${dayNames[i]}`] as const),
  ...(site.plan?.weeks ?? []).map((w) => [`week ${w.id}`, `the week “${w.name}”`] as const),
])
const held = computed(() =>
  props.day.week ? `week ${props.day.week}` : props.day.useDay ? `day ${props.day.useDay}` : '',
)
const happens = [['', 'its own weekday'] as const, ...weekdays.map((d, i) => [d, `as on a ${dayNames[i]}`] as const)]
/** Sets what happens; a day that would differ in nothing any more keeps a factor of 1. */
function setHappens(day: string) {
  const activityDay = (day || undefined) as Weekday | undefined
  const differs = props.day.week || props.day.useDay || activityDay || props.day.rateFactor != null
  set({ activityDay, rateFactor: differs ? props.day.rateFactor : 1 })
}
const set = (part: Partial<SpecialDay>) => emit('change', { ...props.day, ...part })

/** A special day differs in something: where its duties are the usual ones, in how much happens. */
function setHolds(text: string) {
  const [kind, id] = [text.slice(0, text.indexOf(' ')), text.slice(text.indexOf(' ') + 1)]
  const rest: SpecialDay = { ...props.day, week: undefined, useDay: undefined }
  if (!text && !rest.activityDay) rest.rateFactor ??= 1
  if (kind === 'week') rest.week = id
  if (kind === 'day') rest.useDay = id as Weekday
  emit('change', rest)
}

/** Sets how much happens; what is typed must be a number, with a point or a comma. */
function setFactor(input: HTMLInputElement) {
  const text = input.value.trim()
  const { minimum: min, maximum: max } = limitsOf('site.specialDays.rateFactor')
  const read = readNumber(text, { min, max })
  if (text && 'why' in read) {
    const means = '1.5 means half as much again, 0 that nothing happens.'
    emit('refuse', `How much happens, ${props.day.name}: ${read.why}. ${means}`)
    return
  }
  const without = props.day.week || props.day.useDay || props.day.activityDay ? undefined : 1
  set({ rateFactor: 'value' in read ? read.value : without })
}
</script>

<template>
  <td>
    <input
      v-typed="day.name"
      :aria-label="`Name, ${day.from}`"
      maxlength="200"
      @change="set({ name: ($event.target as HTMLInputElement).value.trim() || 'Special day' })"
    />
  </td>
  <td data-test="from">
    <DateField
      :value="day.from"
      :label="`From, ${day.name}`"
      :refuse="(date) => (date > day.to ? 'after its last date' : '')"
      @change="(from) => set({ from })"
    />
  </td>
  <td data-test="to">
    <DateField
      :value="day.to"
      :label="`To, ${day.name}`"
      :refuse="(date) => (date < day.from ? 'before its first date' : '')"
      @change="(to) => set({ to })"
    />
  </td>
  <td>
    <ElSwitch
      size="small"
      :model-value="!!day.yearly"
      :aria-label="`Every year, ${day.name}`"
      @change="(on) => set({ yearly: on === true || undefined })"
    />
  </td>
  <td data-test="holds">
    <ChoiceField bare :label="`Duties, ${day.name}`" :value="held" :choices="holds" @change="setHolds" />
  </td>
  <td data-test="happens">
    <ChoiceField
      bare
      :label="`What happens, ${day.name}`"
      :value="day.activityDay ?? ''"
      :choices="happens"
      @change="setHappens"
    />
  </td>
  <td>
    <input
      v-typed="asRead(String(day.rateFactor ?? ''))"
      placeholder="1"
      inputmode="decimal"
      class="factor"
      :aria-label="`Times as much happens, ${day.name}`"
      data-test="rate-factor"
      @change="setFactor($event.target as HTMLInputElement)"
    />
  </td>
  <td>
    <button
      type="button"
      class="plain-button link short"
      :aria-label="`Remove ${day.name}`"
      @click.stop="emit('remove')"
    >
      Remove
    </button>
  </td>
</template>

<style scoped>
td {
  padding: 2px 6px 2px 0;
  border-bottom: 1px solid var(--rule);
}

td:first-child {
  width: 22%;
}

td:nth-child(5),
td:nth-child(6) {
  width: 20%;
}

.factor {
  width: var(--number);
  text-align: right;
}

td > input {
  width: 100%;
}
</style>
