<script setup lang="ts">
import { computed, ref } from 'vue'

import { aloud, counting, expectationOf, expected } from './expect'
import { minuteOf } from './moment'
import { say } from './signals'
import { useTaken } from './useTaken'
import { addressOf, show, useView } from './view'
import CutShort from './CutShort.vue'
import PhotoPick from './PhotoPick.vue'
import WalkPicture from './WalkPicture.vue'
import WhatFound from './WhatFound.vue'

/** Before a walk: who walks where, and what should be seen; and what was found until now. */
const view = useView()
const { taken, camera, of, now } = useTaken()
const cam = computed(() => camera(view.about.value[0]!))
const records = computed(() => of(cam.value?.channel ?? ''))
const done = computed(() => new Set(cam.value ? counting(cam.value, records.value).map((r) => r.walk!.walk) : []))
const first = () => cam.value?.walks.find((w) => !w.optional && !done.value.has(w.id)) ?? cam.value?.walks[0]
const chosen = ref(view.about.value[1] ?? first()?.id)
const walk = computed(() => cam.value?.walks.find((w) => w.id === chosen.value) ?? cam.value?.walks[0])
const minute = minuteOf(taken.value!.test.timeZone, now())
const expects = computed(() => walk.value && expectationOf(cam.value!, walk.value, minute))
const next = computed(() => {
  const list = taken.value!.test.cameras.filter((c) => !c.none)
  const at = list.findIndex((c) => c.channel === cam.value?.channel)
  return list[(at + 1) % list.length]
})
const needed = computed(() => cam.value!.walks.filter((w) => !w.optional))
</script>

<template>
  <main v-if="!cam">
    <h2>This camera is not in the plan</h2>
    <p>It was removed, or the link is wrong. What was seen of it is kept. <a href="#list">To the cameras</a></p>
  </main>
  <main v-else>
    <CutShort />
    <h2>{{ cam.number }} {{ cam.name }}</h2>
    <p v-if="cam.none">{{ cam.none }}</p>
    <template v-else-if="walk && expects">
      <p class="soft">{{ needed.filter((w) => done.has(w.id)).length }} of {{ needed.length }} walks done</p>
      <div class="chips" role="radiogroup" aria-label="Walk">
        <button
          v-for="w in cam.walks"
          :key="w.id"
          type="button"
          role="radio"
          class="chip"
          :aria-checked="w.id === walk.id"
          @click="chosen = w.id"
        >
          {{ w.name }}<template v-if="done.has(w.id)"> ✓</template>
        </button>
      </div>
      <p>{{ walk.do }}</p>
      <WalkPicture :camera="cam" :walk="walk" />
      <p v-if="expects.words" class="short">{{ expects.words }}</p>
      <table aria-label="What should be seen">
        <tbody>
          <tr v-for="l in expected(walk, expects)" :key="l.what">
            <th scope="row">{{ l.what }}</th>
            <td class="number">{{ l.when }}</td>
          </tr>
          <tr v-if="expects.records?.length">
            <th scope="row">Record too</th>
            <td class="number">{{ expects.records.join(', ') }}</td>
          </tr>
        </tbody>
      </table>
      <p v-for="d in expects.does" :key="d" class="soft">{{ d }}</p>
      <div class="acts">
        <button type="button" class="big filled" data-test="start" @click="show(['run', cam.channel, walk.id])">
          Walker starts
        </button>
      </div>
      <div class="acts two">
        <a v-if="next" class="act" :href="addressOf('camera', next.channel)">Skip to {{ next.number }}</a>
        <button type="button" class="act" @click="say(aloud(walk, expects))">Read aloud</button>
      </div>
      <WhatFound :camera="cam" :records="records" :minute="minute" />
    </template>
    <PhotoPick :channel="cam.channel" />
  </main>
</template>

<style scoped>
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.chip {
  min-height: 48px;
  padding: 4px 14px;
  border-radius: 24px;
  border: 1px solid var(--soft);
  background: none;
}

.chip[aria-checked='true'] {
  border: 2px solid var(--base);
  color: var(--base);
  font-weight: 600;
}

td.number {
  white-space: normal;
}
</style>
