<script setup lang="ts">
import { computed, ref } from 'vue'

import { apart, clockOf, readClock, secondOfDay, seconds } from './moment'
import { useTaken } from './useTaken'
import { complete } from './useWaiting'
import { addressOf, show, useView } from './view'

/** The first and the last second of the footage, by the recorder's clock, now or later. */
const view = useView()
const { taken, camera, records, clocks } = useTaken()
const cam = computed(() => camera(view.about.value[0]!))
const record = computed(() => records.value.find((r) => r.id === view.about.value[1]))
const said = computed(() => record.value?.walk)
const error = computed(() => clocks.value.get(cam.value?.recorder ?? ''))
const zone = taken.value!.test.timeZone
/** When the walker started, on the recorder's clock, as seconds since midnight. */
const start = computed(() => {
  const r = record.value
  return r && secondOfDay(zone, Date.parse(r.at!) - (r.walk?.out ?? 0) * 1000) + (error.value ?? 0)
})
const free = computed(() => !!cam.value?.walks.find((w) => w.id === said.value?.walk)?.free)
/** What is expected, in seconds after the start. */
const expected = computed(() => {
  const [, first, last] = said.value?.planned ?? []
  if (first == null || last == null) return undefined
  if (!free.value) return { first, last }
  return { first: (said.value!.sign ?? 0) + first, last: (said.value!.out ?? 0) + last }
})
const first = ref('')
const last = ref('')
/** When it should begin and end, by the recorder's clock: said, and not written in anybody's place. */
const due = computed(() => {
  if (start.value == null || !expected.value) return undefined
  return { first: clockOf(start.value + expected.value.first), last: clockOf(start.value + expected.value.last) }
})
const read = (text: string) => {
  const clock = readClock(text)
  return clock == null || start.value == null ? undefined : Math.round(100 * apart(clock, start.value)) / 100
}
const from = computed(() => read(first.value))
const to = computed(() => read(last.value))
const odd = computed(() =>
  from.value != null && to.value != null && to.value < from.value
    ? 'It ends before it begins. It is kept like that, and a planner is told.'
    : '',
)
/** A second more or less; of nothing, what is expected. */
const nudge = (text: string, due: string | undefined, by: number) =>
  text ? clockOf((readClock(text) ?? 0) + by) : (due ?? clockOf(start.value ?? 0))

async function save(none: boolean) {
  const r = record.value!
  const seen = { ...r.walk! }
  for (const k of ['noShot', 'first', 'last'] as const) delete seen[k]
  const walk = none ? { ...seen, noShot: true } : { ...seen, first: from.value!, last: to.value! }
  await complete(taken.value!.plan, r, { walk }, Date.parse(r.at!) - taken.value!.behind)
  show(['camera', r.about, r.walk!.walk], true)
}
</script>

<template>
  <main v-if="cam && said && record">
    <h2>{{ cam.number }} {{ cam.name }} · footage</h2>
    <p>
      {{ said.name }}: <b v-if="said.sign != null">sign at {{ seconds(said.sign) }}</b
      ><b v-else>no sign</b>. Now, or later at the recorder: play it back, and read its clock.
    </p>
    <p v-if="error == null">
      How far the clock of {{ taken!.test.recorders.find((r) => r.id === cam!.recorder)?.name }} is off must be known
      once.
      <a :href="addressOf('clock', cam.recorder, cam.channel, record.id)" class="act" data-test="set-clock"
        >Look at its clock</a
      >
    </p>
    <template v-else>
      <label
        v-for="[title, is] in [
          ['First second', 'first'],
          ['Last second', 'last'],
        ] as const"
        :key="is"
        class="field"
      >
        {{ title }}, by the recorder’s clock
        <span class="nudges">
          <button
            type="button"
            class="act"
            :aria-label="`${title}: a second earlier`"
            @click="is === 'first' ? (first = nudge(first, due?.first, -1)) : (last = nudge(last, due?.last, -1))"
          >
            −1
          </button>
          <input
            v-if="is === 'first'"
            v-model="first"
            type="text"
            inputmode="numeric"
            placeholder="14:03:07"
            data-test="first"
          />
          <input v-else v-model="last" type="text" inputmode="numeric" placeholder="14:03:41" data-test="last" />
          <button
            type="button"
            class="act"
            :aria-label="`${title}: a second later`"
            @click="is === 'first' ? (first = nudge(first, due?.first, 1)) : (last = nudge(last, due?.last, 1))"
          >
            +1
          </button>
        </span>
        <span v-if="(is === 'first' ? first : last) && (is === 'first' ? from : to) == null" class="short"
          >Write it as 14:03:07.</span
        >
        <span v-else-if="(is === 'first' ? from : to) != null" class="soft"
          >{{ seconds((is === 'first' ? from : to)!) }} after the start</span
        >
        <span v-else-if="due" class="soft">expected at {{ due[is] }}</span>
      </label>
      <p v-if="odd" class="short" role="alert">{{ odd }}</p>
      <div class="acts">
        <button
          type="button"
          class="big filled"
          :disabled="from == null || to == null"
          data-test="save-footage"
          @click="save(false)"
        >
          Save
        </button>
      </div>
    </template>
    <div class="acts two">
      <button type="button" class="act short" data-test="no-footage" @click="save(true)">There is none</button>
      <a class="act" :href="addressOf('camera', cam.channel)" data-test="later">Later</a>
    </div>
  </main>
  <main v-else>
    <p>This walk is not on the phone any more. <a href="#list">To the cameras</a></p>
  </main>
</template>

<style scoped>
.nudges {
  display: grid;
  grid-template-columns: 60px 1fr 60px;
  gap: 8px;
}
</style>
