<script setup lang="ts">
import { ElSwitch } from 'element-plus'
import { computed, useId } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { choices } from '../api/format'
import type { Curve, Hours, Rate, Stream } from '../api/types'
import ChoiceField from '../ui/ChoiceField.vue'
import { kbps as kbpsText } from '../ui/figures'
import HoursField from '../ui/HoursField.vue'
import NumberField from '../ui/NumberField.vue'

/** The bitrate of a stream: typed or from the model, and what darkness does to it. */
const props = defineProps<{ stream: Stream }>()
const emit = defineEmits<{ change: [rate: Rate] }>()
defineSlots<{ modelled(props: { curve: Curve }): unknown }>()
const id = useId()

const { rateKinds, ratesKnown, qualities, scenes } = choices
const at = 'channels.streams.main.rate.'
const rate = computed(() => props.stream.rate)
const set = (change: Partial<Rate>) => emit('change', { ...rate.value, ...change })

/** What the stream costs, and its bitrate said in the other ways. */
const { data: curve } = useAnswer(
  () => props.stream,
  () => api.POST('/api/streams/curve', { body: props.stream }),
  { keep: true },
)
const become = (kind: Rate['kind']) => curve.value && emit('change', curve.value.as[kind])

/** What darkness does; a factor of 1, or none, is no night. */
const evening: Hours[] = [{ from: '20:00', to: '06:00' }]
function setNight(factor: number, blocks = rate.value.night?.hours.blocks ?? evening) {
  set({ night: factor && factor !== 1 ? { factor, hours: { blocks } } : undefined })
}
defineExpose({ setNight })
</script>

<template>
  <ChoiceField label="Bitrate" :value="rate.kind" :choices="rateKinds" @change="become" />
  <NumberField
    v-if="rate.kind === 'constant'"
    label="Always"
    unit="kbit/s"
    :value="rate.kbps"
    :member="`${at}kbps`"
    data-field="kbps"
    @change="(kbps) => set({ kbps })"
  />
  <template v-if="rate.kind === 'variable'">
    <NumberField
      label="Idle"
      unit="kbit/s"
      :value="rate.idleKbps"
      :member="`${at}idleKbps`"
      data-field="idle"
      @change="(idleKbps) => set({ idleKbps })"
    />
    <NumberField
      label="Moving"
      unit="kbit/s"
      :value="rate.activeKbps"
      :member="`${at}activeKbps`"
      data-field="active"
      @change="(activeKbps) => set({ activeKbps })"
    />
  </template>
  <template v-if="rate.kind === 'modelled'">
    <ChoiceField label="Quality" :value="rate.quality" :choices="qualities" @change="(quality) => set({ quality })" />
    <ChoiceField label="Scene" :value="rate.scene" :choices="scenes" @change="(scene) => set({ scene })" />
    <div
      class="tick"
      title="While nothing moves the encoder sends a keyframe a quarter as often, and less between them."
    >
      <label :for="id">The encoder adapts: less while nothing moves</label>
      <ElSwitch
        :id="id"
        size="small"
        :model-value="!!rate.adaptive"
        data-test="adaptive"
        @change="(on) => set({ adaptive: on === true || undefined })"
      />
    </div>
    <NumberField
      label="Encoder's limit"
      none="none"
      unit="kbit/s"
      :value="rate.maxKbps ?? 0"
      :member="`${at}maxKbps`"
      data-field="max-kbps"
      @change="(v) => set({ maxKbps: v || undefined })"
    />
    <p v-if="curve?.byFPS.length" class="comes">
      Comes to <b>{{ kbpsText(curve.idleKbps) }}</b> idle, <b>{{ kbpsText(curve.activeKbps) }}</b> moving.
    </p>
    <slot v-if="curve?.byFPS.length" name="modelled" :curve="curve" />
  </template>
  <ChoiceField v-else label="Known from" :value="rate.known" :choices="ratesKnown" @change="(k) => set({ known: k })" />
  <template v-if="rate.kind !== 'constant'">
    <NumberField
      label="At night, times"
      none="as by day"
      unit="×"
      :value="rate.night?.factor ?? 0"
      :max="100"
      data-field="night"
      @change="(f) => setNight(f)"
    />
    <HoursField
      v-if="rate.night"
      label="Night"
      :value="rate.night.hours.blocks"
      data-test="night-hours"
      @change="(blocks) => setNight(rate.night!.factor, blocks)"
    />
    <p v-if="curve?.night" class="comes" data-test="night-cost">
      At night <b>{{ kbpsText(curve.night.idleKbps) }}</b> idle, <b>{{ kbpsText(curve.night.activeKbps) }}</b> moving.
    </p>
  </template>
</template>

<style scoped>
.tick {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px;
  align-items: center;
  min-height: var(--row);
}

.comes {
  margin: 6px 0 2px;
}
</style>
