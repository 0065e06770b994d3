<script setup lang="ts">
import { computed } from 'vue'

import type { Channel } from '../../api/types'
import { three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import type { Picture } from './picture/usePicture'

/** How the camera hangs: as two people in the picture tell, or as it is typed. */
const { picture, channel } = defineProps<{ picture: Picture; channel: Channel }>()
const { scene, seen } = picture
const ground = computed(() => seen.value?.sight.ground)
const set = (part: { verticalDegrees?: number; cameraMetres?: number; tiltDegrees?: number }) =>
  picture.change([{ setGround: { channel: channel.id, ...part } }])
const tidy = (v: number | undefined, digits: number) => (v === undefined ? undefined : Number(v.toFixed(digits)))
</script>

<template>
  <section data-test="camera">
    <h2>The camera</h2>
    <NumberField
      label="Vertical angle of view"
      unit="°"
      :value="scene.verticalDegrees"
      :min="1"
      :max="150"
      data-field="degrees"
      @change="(verticalDegrees) => set({ verticalDegrees })"
    />
    <NumberField
      label="Hangs at"
      data-field="metres"
      unit="m"
      :value="scene.cameraMetres || tidy(ground?.cameraMetres, 2)"
      :min="0.1"
      :max="200"
      optional
      @change="(cameraMetres) => set({ cameraMetres })"
      @clear="set({ cameraMetres: 0 })"
    />
    <NumberField
      label="Looks down by"
      data-field="tilt"
      unit="°"
      :value="tidy(ground?.tiltDegrees, 1)"
      :min="-45"
      :max="80"
      @change="(tiltDegrees) => set({ tiltDegrees })"
    />
    <p v-if="ground" class="soft" data-test="ground">
      The camera hangs {{ three(ground.cameraMetres) }} m high, the horizon is at {{ three(100 * ground.horizon) }} % of
      the picture. Exact for a camera that looks level; tilted by 8° up to a tenth too high, beyond 25° no use.
    </p>
    <p v-else class="soft">
      Set two people of 1.7 m on the picture, one near and one far, to know distances and sizes. Or type how the camera
      hangs.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 4px 0;
}

p {
  margin: 4px 0;
}
</style>
