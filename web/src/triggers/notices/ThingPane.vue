<script setup lang="ts">
import { computed } from 'vue'

import type { Area, Patch, Walk } from '../../api/types'
import TextField from '../../ui/TextField.vue'
import AreaFields from './AreaFields.vue'
import PatchFields from './PatchFields.vue'
import WalkFields from './WalkFields.vue'
import { keyOf, type Point } from './picture/things'
import type { Picture } from './picture/usePicture'

/** What is picked in the picture, and what the core says of it. */
const { picture, channel } = defineProps<{ picture: Picture; channel: string }>()
const { area, walk, patch, thing, things } = picture

const setArea = (part: Partial<Area>) => picture.change([{ setArea: { channel, area: { ...area.value!, ...part } } }])
const setWalk = (part: Partial<Walk>) => picture.change([{ setWalk: { channel, walk: { ...walk.value!, ...part } } }])
const setPatch = (part: Partial<Patch>) =>
  picture.change([{ setPatch: { channel, patch: { ...patch.value!, ...part } } }])
const rename = (name: string) => (area.value ? setArea({ name }) : walk.value ? setWalk({ name }) : setPatch({ name }))

/** Corners as they are typed: "30.5 40, 70 40" in percent from the left and the top. */
const written = computed(() =>
  thing.value?.points.map((p) => p.map((v) => Number((v * 100).toFixed(2))).join(' ')).join(', '),
)
function typed(text: string) {
  const points = text
    .split(/[,;]\s*/)
    .filter(Boolean)
    .map((pair) =>
      pair
        .trim()
        .split(/\s+/)
        .map((v) => Number(v) / 100),
    )
  const bad = points.findIndex((p) => p.length !== 2 || p.some((v) => !Number.isFinite(v)))
  if (bad >= 0) {
    picture.complain(`Corner ${bad + 1} is not two numbers in percent, such as 30.5 40; corners are parted by commas.`)
    return
  }
  const outside = points.findIndex((p) => p.some((v) => v < 0 || v > 1))
  if (outside >= 0) {
    picture.complain(`Corner ${outside + 1} is outside the picture, which goes from 0 to 100 % each way.`)
    return
  }
  picture.hold({ ...thing.value!, points: points as Point[] })
  picture.keep()
}
</script>

<template>
  <nav v-if="things.length" aria-label="Drawn in the picture" class="drawn">
    <h2>Drawn</h2>
    <button
      v-for="t in things"
      :key="keyOf(t)"
      type="button"
      class="plain-button link"
      :aria-pressed="thing === t"
      :data-pick="keyOf(t)"
      @click="picture.pick(keyOf(t))"
    >
      {{ t.name }}
    </button>
  </nav>
  <section v-if="thing" class="thing" data-test="thing">
    <h2>{{ thing.name }}</h2>
    <TextField v-if="thing.kind !== 'person'" label="Name" :value="thing.name" :maxlength="100" @change="rename" />
    <AreaFields v-if="area" :key="area.id" :picture="picture" :channel="channel" :area="area" />
    <WalkFields v-else-if="walk" :key="walk.id" :picture="picture" :channel="channel" :walk="walk" />
    <PatchFields v-else-if="patch" :key="patch.id" :picture="picture" :channel="channel" :patch="patch" />
    <TextField
      v-if="thing.points.length"
      :label="
        thing.kind === 'person' ? 'Feet and head, % from the left and the top' : 'Corners, % from the left and the top'
      "
      :value="written"
      :maxlength="4000"
      data-field="corners"
      @change="typed"
    />
    <button type="button" class="plain-button link short" data-test="remove-thing" @click="picture.remove()">
      Remove
    </button>
  </section>
</template>

<style scoped>
.thing {
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}

.drawn {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}

.drawn h2 {
  width: 100%;
}

.drawn [aria-pressed='true'] {
  font-weight: 600;
}

p {
  margin: 4px 0;
}
</style>
