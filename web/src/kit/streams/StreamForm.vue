<script setup lang="ts">
import { ref, useTemplateRef } from 'vue'

import { choices } from '../../api/format'
import type { Curve, Stream } from '../../api/types'
import RateForm from '../../forms/RateForm.vue'
import ChoiceField from '../../ui/ChoiceField.vue'
import MiniChart from '../../ui/MiniChart.vue'
import NumberField from '../../ui/NumberField.vue'
import { readSize } from '../../ui/size'
import TextField from '../../ui/TextField.vue'
import ClipDrop from './ClipDrop.vue'

/** All that is set of one stream: typed, from the model, or measured from a clip. */
const props = defineProps<{ stream: Stream; label: string }>()
const emit = defineEmits<{ change: [stream: Stream] }>()

const { codecs, sizes } = choices
const rates = useTemplateRef('rates')
const at = 'channels.streams.main.'

const set = (change: Partial<Stream>) => emit('change', { ...props.stream, ...change })

const sizeProblem = ref('')
function setSize(text: string) {
  const read = readSize(text)
  sizeProblem.value = 'why' in read ? read.why : ''
  if (!('why' in read)) set(read)
}

const lines = (points: Curve['byFPS']) => [
  { name: 'moving', color: 'motion' as const, points: points.map((p) => [p.at, p.activeKbps] as [number, number]) },
  {
    name: 'idle',
    color: 'base' as const,
    dashed: true,
    points: points.map((p) => [p.at, p.idleKbps] as [number, number]),
  },
]
</script>

<template>
  <div class="stream" :aria-label="label" role="group">
    <ChoiceField label="Codec" :value="stream.codec" :choices="codecs" @change="(codec) => set({ codec })" />
    <TextField
      label="Resolution"
      :value="`${stream.width}×${stream.height}`"
      :choices="sizes"
      :problem="sizeProblem"
      @change="setSize"
    />
    <NumberField
      label="Frames"
      unit="/s"
      :value="stream.fps"
      :member="`${at}fps`"
      data-field="fps"
      @change="(fps) => set({ fps })"
    />
    <NumberField
      label="Keyframe every"
      unit="s"
      :value="stream.gopSeconds"
      :member="`${at}gopSeconds`"
      @change="(gopSeconds) => set({ gopSeconds })"
    />
    <NumberField
      label="Keyframe size"
      none="unknown"
      unit="kB"
      :value="stream.keyframeKB"
      :member="`${at}keyframeKB`"
      @change="(v) => set({ keyframeKB: v || undefined })"
    />
    <RateForm ref="rates" :stream="stream" @change="(rate) => set({ rate })">
      <template #modelled="{ curve }">
        <MiniChart
          :lines="lines(curve.byFPS)"
          x="frames a second"
          y="kbit/s"
          :mark="stream.fps"
          label="What the frame rate does to the bitrate, idle and moving"
        />
        <MiniChart
          :lines="lines(curve.byGOP)"
          x="seconds between keyframes"
          y="kbit/s"
          :mark="stream.gopSeconds"
          label="What the keyframe interval does to the bitrate, idle and moving"
        />
      </template>
    </RateForm>
    <ClipDrop :stream="stream" @night="(f) => rates?.setNight(f)" @accept="(s) => emit('change', s)" />
  </div>
</template>

<style scoped>
.stream {
  display: grid;
  gap: 1px;
}
</style>
