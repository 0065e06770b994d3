<script setup lang="ts">
import { computed, ref } from 'vue'

import { apart, clockOf, readClock, secondOfDay, seconds } from './moment'
import { useTaken } from './useTaken'
import { note } from './useWaiting'
import { show, useView } from './view'

/** How far a recorder's clock is off, found once: its time is typed ahead, and tapped when it comes. */
const view = useView()
const { taken, clocks, now } = useTaken()
const id = view.about.value[0]!
const recorder = computed(() => taken.value!.test.recorders.find((r) => r.id === id))
const zone = taken.value!.test.timeZone
const text = ref(clockOf(Math.ceil((secondOfDay(zone, now()) + (clocks.value.get(id) ?? 0) + 20) / 10) * 10))
const shown = computed(() => readClock(text.value))

async function tap() {
  if (shown.value == null) return
  const error = Math.round(100 * apart(shown.value, secondOfDay(zone, now()))) / 100
  await note(taken.value!.plan, taken.value!.test.version, id, { error: { seconds: error } })
  const [, channel, record] = view.about.value
  show(channel && record ? ['footage', channel, record] : ['more'], true)
}
</script>

<template>
  <main>
    <h2>Clock of {{ recorder?.name ?? 'a recorder' }}</h2>
    <p>Write a time that its clock will show in a moment, and tap just when it does.</p>
    <p v-if="clocks.has(id)" class="soft">
      Until now it is taken to be {{ seconds(Math.abs(clocks.get(id)!)) }}
      {{ clocks.get(id)! < 0 ? 'behind' : 'ahead' }}.
    </p>
    <label class="field">
      Its clock shows
      <input v-model="text" type="text" inputmode="numeric" data-test="clock" />
      <span v-if="text && shown == null" class="short">Write it as 14:03:07.</span>
    </label>
    <div class="acts">
      <button type="button" class="big filled" :disabled="shown == null" data-test="clock-now" @click="tap">Now</button>
    </div>
  </main>
</template>
