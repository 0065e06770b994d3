<script setup lang="ts">
import { computed } from 'vue'

import type { Area } from '../../api/types'
import { three } from '../../ui/figures'
import { useObjects } from './picture/useObjects'
import type { Point } from './picture/things'
import type { Picture } from './picture/usePicture'

/** Sets an area's smallest size by standing something where it should just be noticed. */
const { picture, area } = defineProps<{ picture: Picture; area: Area }>()
const emit = defineEmits<{ set: [smallest: NonNullable<Area['smallest']>] }>()
const { stand, seen } = picture
const objects = useObjects()
const of = computed(() => area.smallest?.of ?? 'picture')

/** At first it stands in the middle of the area, on its lower edge. */
function begin(object: string) {
  const points = (area.points ?? []) as Point[]
  const xs = points.map((p) => p[0])
  const x = points.length ? (Math.min(...xs) + Math.max(...xs)) / 2 : 0.5
  const y = points.length ? Math.max(...points.map((p) => p[1])) : 0.7
  picture.standAt({ object, area: area.id, feet: stand.value?.feet ?? [x, Math.min(y, 0.9)] })
}
const percent = computed(() => {
  const s = seen.value?.standing
  return s && (of.value === 'area' ? s.ofAreaPercent : s.ofPicturePercent)
})
/** A little less than what is seen of it, so that it is just noticed. */
const just = computed(() => (percent.value ? Number((percent.value * 0.995).toPrecision(3)) : 0))
function keep() {
  emit('set', { percent: just.value, of: of.value })
  picture.standAt()
}
</script>

<template>
  <div v-if="seen?.sight.ground" class="stand">
    <span class="soft">Just notice</span>
    <button
      v-for="[id, name] in objects"
      :key="id"
      type="button"
      class="plain-button link"
      :aria-pressed="stand?.object === id"
      :data-stand="id"
      @click="begin(id)"
    >
      {{ name.toLowerCase() }}
    </button>
    <p v-if="stand && percent !== undefined" data-test="stand-says">
      Drag it to where it should just be noticed. There the area sees {{ three(percent) }} % of the {{ of }}.
      <button v-if="just" type="button" class="act quiet" data-test="stand-keep" @click="keep">
        Notice from {{ just }} % on
      </button>
      <button type="button" class="plain-button link" @click="picture.standAt()">Cancel</button>
    </p>
  </div>
</template>

<style scoped>
.stand {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 9px;
  font-size: var(--second);
  padding-bottom: 3px;
}

[aria-pressed='true'] {
  font-weight: 600;
}

p {
  margin: 2px 0;
  width: 100%;
}
</style>
