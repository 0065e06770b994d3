<script setup lang="ts">
import { computed } from 'vue'

import type { Alerts, Message } from '../../api/types'
import { durationInWords } from '../../ui/duration'
import { three } from '../../ui/figures'
import HourRibbon from '../parts/HourRibbon.vue'
import FindingsOf from '../parts/FindingsOf.vue'
import MessageForm from './MessageForm.vue'

/** A receiver's week: what goes out, what is held back, and what falls into quiet hours. */
const { message, alerts, trying } = defineProps<{
  message: Message
  alerts: Alerts | undefined
  trying: number | undefined
  index: number
}>()
const emit = defineEmits<{ try: [seconds: number]; keep: [seconds: number] }>()
const steps = [10, 30, 60, 120, 300, 600, 900, 1800, 3600, 7200, 14400, 28800, 86400]
let keying = false // an arrow that is held is one change
function settle() {
  keying = false
  if (trying !== undefined) emit('keep', trying)
}
const figures = computed(() => alerts?.messages?.find((m) => m.id === message.id))
const hours = computed(() => alerts?.hours.messages?.find((m) => m.id === message.id))
const come = computed(() => (hours.value?.sent ?? []).map((v, i) => v + (hours.value?.held?.[i] ?? 0)))
const quiet = computed(() => come.value.map((v, i) => v < 1e-9 && (hours.value?.quiet?.[i] ?? 0) > 1e-9))
const read = computed(() => message.mostPerDay ?? 30)
const nearest = (seconds: number) =>
  steps.reduce(
    (best, s, i) => (Math.abs(Math.log(s / seconds)) < Math.abs(Math.log(steps[best]! / seconds)) ? i : best),
    0,
  )
const say = (i: number) => {
  const h = hours.value
  if (!h) return ''
  const out = [`${three(h.sent?.[i] ?? 0)} go out`, `${three(h.held?.[i] ?? 0)} held back`]
  if ((h.quiet?.[i] ?? 0) > 1e-9) out.push(`${three(h.quiet![i]!)} outside its hours`)
  return out.join(', ')
}
</script>

<template>
  <article class="card" :data-card="message.id">
    <MessageForm :message="message" />
    <div>
      <div class="awaited">
        <HourRibbon
          v-if="hours"
          :label="`${message.name}: what goes out, and what is held back in outline`"
          :ink="hours.sent ?? []"
          :outline="come"
          :quiet="quiet"
          :say="say"
        />
        <p v-if="figures" class="figures">
          <span
            ><b :class="{ short: figures.perDay > read }" data-test="per-day">{{ three(figures.perDay) }}</b> a day go
            out</span
          >
          <span
            ><b data-test="held-back">{{ three(figures.heldBackPerDay) }}</b> held back</span
          >
          <span v-if="figures.quietPerDay > 0.005"
            ><b>{{ three(figures.quietPerDay) }}</b> outside its hours</span
          >
          <span
            ><b>{{ three(figures.busiestPerHour) }}</b> in the busiest hour</span
          >
          <span
            ><b>{{ three(figures.nightPerDay) }}</b> from 22:00 to 06:00</span
          >
          <span v-if="message.still">with a snapshot</span>
        </p>
      </div>
      <label class="turn">
        At most one every <b>{{ durationInWords(trying ?? message.atMostEverySeconds) }}</b>
        <input
          type="range"
          min="0"
          :max="steps.length - 1"
          :value="nearest(trying ?? message.atMostEverySeconds)"
          :aria-valuetext="durationInWords(trying ?? message.atMostEverySeconds)"
          :aria-label="`${message.name}: at most one every`"
          @input="emit('try', steps[Number(($event.target as HTMLInputElement).value)]!)"
          @keydown="keying = true"
          @keyup="settle"
          @blur="settle"
          @change="keying || settle()"
        />
      </label>
      <FindingsOf :at="`messages[${index}]`" />
    </div>
  </article>
</template>

<style scoped>
.turn {
  display: flex;
  gap: 6px;
  align-items: center;
}

.turn input {
  width: 260px;
  margin-left: 10px;
}
</style>
