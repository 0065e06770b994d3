<script setup lang="ts">
import { computed, ref } from 'vue'

import type { WalkCamera } from '../api/types'
import CutShort from './CutShort.vue'
import { counting, progress } from './expect'
import { judge } from './judge'
import { useTaken } from './useTaken'
import { addressOf } from './view'

/** The cameras of the site, and how far each is. */
const { taken, of } = useTaken()
const sought = ref('')
const faults = computed(() => taken.value!.test.faults.map((f) => f.fault))

interface Line {
  camera: WalkCamera
  words: string
  differs: boolean
}
const lines = computed((): Line[] =>
  taken.value!.test.cameras.map((camera) => {
    const records = of(camera.channel)
    if (camera.none) return { camera, words: '–', differs: false }
    const { walked, of: needed } = progress(camera, records)
    const seen = counting(camera, records).map((r) => r.walk!)
    const left = records.findLast((r) => r.decision || r.walk)?.decision?.what
    if (left === 'leave' || left === 'taken') return { camera, words: 'left so', differs: false }
    const likely = seen.length ? judge(camera, seen, faults.value, taken.value!.test.told)[0] : undefined
    const differs = !!likely && likely.fault !== 'asPlanned'
    const again = !seen.length && records.some((r) => r.walk)
    return {
      camera,
      words: differs ? 'differs' : again ? 'walk again' : walked === needed ? 'as planned' : `${walked} of ${needed}`,
      differs,
    }
  }),
)
const found = computed(() =>
  lines.value.filter((l) =>
    `${l.camera.number} ${l.camera.name} ${l.camera.group ?? ''}`
      .toLowerCase()
      .includes(sought.value.trim().toLowerCase()),
  ),
)
const done = computed(() => lines.value.filter((l) => ['as planned', 'left so'].includes(l.words)).length)
const all = computed(() => lines.value.filter((l) => !l.camera.none).length)
</script>

<template>
  <main>
    <CutShort />
    <h2>Walks · {{ done }} of {{ all }} cameras</h2>
    <label v-if="lines.length > 8" class="field">
      <span class="visually-hidden">Find a camera</span>
      <input v-model="sought" type="text" inputmode="search" placeholder="Number or name" />
    </label>
    <ul class="rows">
      <li v-for="l in found" :key="l.camera.channel">
        <a :href="addressOf('camera', l.camera.channel)">
          <b>{{ l.camera.number }}</b>
          <span class="name" :title="l.camera.name">{{ l.camera.name }}</span>
          <span :class="{ short: l.differs, soft: !l.differs }">{{ l.words }}</span>
        </a>
      </li>
    </ul>
    <p v-if="!found.length">No camera is called like that.</p>
  </main>
</template>
