<script setup lang="ts">
import { ElSwitch } from 'element-plus'
import { computed } from 'vue'

import { choices } from '../../api/format'
import type { Channel, Detection } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { three } from '../../ui/figures'
import { notice } from '../../ui/notice'
import HoursField from '../../ui/HoursField.vue'
import HoursStrip from '../../forms/HoursStrip.vue'
import NumberField from '../../ui/NumberField.vue'
import type { Picture } from './picture/usePicture'

/** How the channel's motion becomes a trigger. */
const { picture, channel } = defineProps<{ picture: Picture; channel: Channel }>()
const { areas } = picture
const site = useSite()
const d = computed<Detection>(() => channel.detection ?? { on: false })
const figures = computed(() => site.figures.get(channel.id))
const deaf = computed(() => site.ribbons.get(channel.id)?.deaf ?? [])
const set = (part: Partial<Detection>) =>
  picture.change([{ setDetection: { channels: [channel.id], detection: { ...d.value, ...part } } }])
const others = computed(() =>
  (site.plan?.channels ?? []).filter((c) => !c.noCamera && c.id !== channel.id).map((c) => [c.id, c.name] as const),
)
function copyTo(to: string) {
  picture.change([{ copyAreas: { from: channel.id, to: [to] } }])
  const name = site.channels.get(to)?.name ?? to
  notice(`${name} has the areas of ${channel.name} now. Every scene differs: look at them there.`, { seconds: 6 })
}
const percent = (v?: number) => (v === undefined ? undefined : Math.round(1e4 * v) / 100)
</script>

<template>
  <section data-test="detection">
    <h2>{{ channel.name }}</h2>
    <div class="field switch">
      <label :for="`on-${channel.id}`">Detection</label>
      <ElSwitch
        :id="`on-${channel.id}`"
        :model-value="d.on"
        aria-label="Detection"
        data-field="on"
        @change="(on) => set({ on: !!on })"
      />
    </div>
    <template v-if="d.on">
      <ChoiceField label="Detected by" :value="d.by" :choices="choices.detectors.value" @change="(by) => set({ by })" />
      <HoursField
        empty="always"
        label="Hours"
        :value="d.hours?.blocks"
        @change="(blocks) => set({ hours: blocks.length ? { blocks } : undefined })"
      />
      <HoursStrip
        :blocks="d.hours?.blocks"
        :deaf="deaf"
        name="detection"
        @change="(blocks) => set({ hours: blocks && { blocks } })"
        @problem="picture.complain"
      />
      <p v-if="deaf.length" class="short" data-test="deaf">
        Ringed: the duty waits for motion then, and nothing reports any.
      </p>
      <NumberField
        label="Shortest motion"
        unit="s"
        :value="d.minSeconds ?? 0"
        member="channels.detection.minSeconds"
        data-field="min-seconds"
        @change="(minSeconds) => set({ minSeconds })"
      />
      <NumberField
        label="Detector reliability"
        unit="%"
        :value="percent(d.reliability)"
        :min="0"
        :max="100"
        optional
        data-field="reliable"
        @change="(v) => set({ reliability: v / 100 })"
        @clear="set({ reliability: undefined })"
      />
      <NumberField
        label="Caught (stated)"
        unit="%"
        :value="percent(d.catch)"
        :min="0"
        :max="100"
        optional
        data-field="catch"
        @change="(v) => set({ catch: v / 100 })"
        @clear="set({ catch: undefined })"
      />
      <p v-if="figures?.catchPercent !== undefined" data-test="catches">
        Notices <b>{{ three(figures.catchPercent) }} %</b> of wanted events while it is on<template
          v-if="d.catch !== undefined"
          >, as stated; walks and areas do not count</template
        >.
        <span v-if="picture.seen.value?.sight.guessed" class="soft" data-test="guessed"
          >Nothing is known of what it notices; guessed. A walk test tells.</span
        >
      </p>
    </template>
    <ChoiceField
      v-if="areas.length && others.length"
      label="Copy its areas to"
      :value="undefined"
      :choices="others"
      data-field="copy"
      @change="copyTo"
    />
  </section>
</template>

<style scoped>
h2 {
  margin: 4px 0;
}

.switch {
  display: flex;
  justify-content: space-between;
  align-items: center;
}

p {
  margin: 4px 0;
}
</style>
