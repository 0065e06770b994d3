<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { computed } from 'vue'

import type { Walk } from '../../api/types'
import ChoiceField from '../../ui/ChoiceField.vue'
import { three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import { useObjects } from './picture/useObjects'
import type { Picture } from './picture/usePicture'

/** A walk that is picked, and what the core says of it. */
const { picture, channel, walk } = defineProps<{ picture: Picture; channel: string; walk: Walk }>()
const { seen } = picture
const objects = useObjects()
const walkSight = computed(() => seen.value?.sight.walks.find((w) => w.id === walk.id))
const after = (seconds: number | undefined, metres: number | undefined) =>
  seconds === undefined ? '' : `after ${three(seconds)} s, ${three(metres ?? 0)} m away`
const setWalk = (part: Partial<Walk>) => picture.change([{ setWalk: { channel, walk: { ...walk, ...part } } }])
</script>

<template>
  <div>
    <ChoiceField
      label="Who walks"
      data-field="object"
      :value="walk.object"
      :choices="objects"
      @change="(object) => setWalk({ object })"
    />
    <NumberField
      label="Share of the events"
      unit="%"
      :value="walk.sharePercent"
      :min="0.01"
      :max="100"
      data-field="share"
      @change="(sharePercent) => setWalk({ sharePercent })"
    />
    <NumberField
      label="Speed"
      unit="m/s"
      :value="walk.metresPerSecond"
      :min="0.01"
      :max="100"
      optional
      @change="(metresPerSecond) => setWalk({ metresPerSecond })"
      @clear="setWalk({ metresPerSecond: undefined })"
    />
    <p v-if="!walkSight" class="soft">Set two people on the picture to know how far and how fast this is.</p>
    <p v-else-if="walkSight.noticedSeconds !== undefined" data-test="walk-says">
      {{ three(walkSight.metres) }} m in {{ three(walkSight.seconds) }} s. Enters a watched area
      {{ after(walkSight.entersSeconds, walkSight.entersAwayMetres) }}, is noticed
      {{ after(walkSight.noticedSeconds, walkSight.awayMetres) }} and lost
      {{ after(walkSight.lostSeconds, walkSight.lostAwayMetres) }}.
      <template v-if="walkSight.missingSeconds > 0.05">
        The first <b class="short">{{ three(walkSight.missingSeconds) }} s</b> are not recorded.
      </template>
      <template v-else>What is recorded from before reaches back to its beginning.</template>
    </p>
    <p v-else class="short" data-test="walk-says">
      Never noticed:
      {{
        walkSight.entersSeconds === undefined
          ? 'it passes beside every watched area'
          : walkSight.large
            ? 'it is in sight for too short'
            : 'it is too small in every area'
      }}.
    </p>
    <div v-if="walkSight?.track.length" class="moment">
      <span class="soft">Along it</span>
      <ElSlider
        :model-value="picture.moment.value ?? 0"
        :max="walkSight.track.length - 1"
        size="small"
        aria-label="Along the walk"
        :format-tooltip="(i: number) => `${three(walkSight!.track[i]?.seconds ?? 0)} s`"
        data-field="along"
        @input="(i) => picture.look(Number(i))"
      />
    </div>
  </div>
</template>

<style scoped>
.moment {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  align-items: center;
  padding-right: 8px;
}

p {
  margin: 4px 0;
}
</style>
