<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../../../api/ask'
import { api } from '../../../api/client'
import type { Picture } from './usePicture'

/** What to do with a picture of which nothing is known yet. */
const { picture, channel } = defineProps<{ picture: Picture; channel: string }>()
const isEmpty = computed(
  () =>
    !picture.things.value.length && !picture.tool.value && !picture.seen.value?.sight.ground && !!picture.seen.value,
)
const { data } = useAnswer(
  () => isEmpty.value,
  () => (isEmpty.value ? api.GET('/api/beginnings') : undefined),
  { keep: true },
)
type Kind = NonNullable<typeof data.value>['pictures'][number]

function begin({ verticalDegrees, cameraMetres, tiltDegrees, area, walks }: Kind) {
  picture.change([
    { setGround: { channel, verticalDegrees, cameraMetres, tiltDegrees } },
    { setArea: { channel, area } },
    ...walks.map((walk) => ({ setWalk: { channel, walk } })),
  ])
}
</script>

<template>
  <div v-if="isEmpty" class="empty" data-test="empty-board">
    <h2>Nothing is drawn of what this camera sees</h2>
    <p>Drop or paste a picture on it. Say at the right how the camera hangs, or set down two people.</p>
    <p>
      Or begin with a kind of scene, and drag it to what the picture shows:
      <button
        v-for="k in data?.pictures ?? []"
        :key="k.id"
        type="button"
        class="act quiet"
        :data-scene="k.id"
        @click="begin(k)"
      >
        {{ k.name }}
      </button>
    </p>
    <p class="soft">Until then how much it notices is what stands at the right: stated, or a guess.</p>
  </div>
</template>

<style scoped>
.empty {
  grid-area: 1 / 1;
  align-self: end;
  z-index: 1;
  max-width: 560px;
  margin: 16px;
  padding: 10px 16px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
}

h2 {
  margin: 0 0 6px;
}

p {
  margin: 4px 0;
}

.act {
  margin: 2px 6px 2px 0;
}
</style>
