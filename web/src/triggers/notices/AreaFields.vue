<script setup lang="ts">
import { ElSwitch } from 'element-plus'
import { computed } from 'vue'

import { choices } from '../../api/format'
import type { Area } from '../../api/types'
import ChoiceField from '../../ui/ChoiceField.vue'
import { three } from '../../ui/figures'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import HoursStrip from '../../forms/HoursStrip.vue'
import StandFields from './StandFields.vue'
import type { Picture } from './picture/usePicture'

/** An area that is picked: what it takes to be noticed in it, and when. */
const { picture, channel, area } = defineProps<{ picture: Picture; channel: string; area: Area }>()
const { seen } = picture
const areaSight = computed(() => seen.value?.sight.areas.find((a) => a.id === area.id))
const setArea = (part: Partial<Area>) => picture.change([{ setArea: { channel, area: { ...area, ...part } } }])
</script>

<template>
  <div>
    <div class="field switch">
      <label :for="`ignore-${area.id}`">What moves here counts for nothing</label>
      <ElSwitch
        :id="`ignore-${area.id}`"
        :model-value="!!area.ignore"
        aria-label="What moves here counts for nothing"
        data-field="ignore"
        @change="(ignore) => setArea({ ignore: ignore ? true : undefined })"
      />
    </div>
    <template v-if="!area.ignore">
      <NumberField
        label="Smallest object"
        unit="%"
        :value="area.smallest?.percent ?? 0"
        :min="0"
        :max="100"
        data-field="smallest"
        @change="(percent) => setArea({ smallest: { percent, of: area.smallest?.of ?? 'picture' } })"
      />
      <StandFields :picture="picture" :area="area" @set="(smallest) => setArea({ smallest })" />
      <ChoiceField
        v-if="area.smallest"
        label="Of what"
        :value="area.smallest.of"
        :choices="choices.smallestOf.value"
        @change="(of) => setArea({ smallest: { percent: area.smallest!.percent, of } })"
      />
      <NumberField
        label="Shortest motion"
        unit="s"
        :value="area.minSeconds"
        member="channels.detection.areas.minSeconds"
        optional
        data-field="shortest"
        @change="(minSeconds) => setArea({ minSeconds })"
        @clear="setArea({ minSeconds: undefined })"
      />
      <NumberField
        label="Sensitivity"
        unit="%"
        :value="area.sensitivityPercent"
        :min="0"
        :max="100"
        optional
        @change="(sensitivityPercent) => setArea({ sensitivityPercent })"
        @clear="setArea({ sensitivityPercent: undefined })"
      />
      <HoursField
        empty="always"
        label="Watches"
        :value="area.hours?.blocks"
        @change="(blocks) => setArea({ hours: blocks.length ? { blocks } : undefined })"
      />
      <HoursStrip
        :blocks="area.hours?.blocks"
        :deaf="[]"
        name="area"
        @change="(blocks) => setArea({ hours: blocks && { blocks } })"
        @problem="picture.complain"
      />
    </template>
    <p v-if="areaSight" class="soft">
      Covers {{ three(areaSight.percent) }} % of the picture<template
        v-if="!area.ignore && areaSight.leftPercent < areaSight.percent - 0.005"
        >, of which {{ three(areaSight.leftPercent) }} % are not ignored</template
      >.
    </p>
  </div>
</template>

<style scoped>
.switch {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

p {
  margin: 4px 0;
}
</style>
