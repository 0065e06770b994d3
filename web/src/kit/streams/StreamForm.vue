<script setup lang="ts">
import { computed, defineAsyncComponent, ref, watch } from 'vue'

import { api } from '../../api/client'
import type { Curve, Hours, Rate, Stream } from '../../api/types'
import ChoiceField from '../../ui/ChoiceField.vue'
import { kbps as kbpsText } from '../../ui/figures'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import TextField from '../../ui/TextField.vue'
import ClipDrop from './ClipDrop.vue'

/** All that is set of one stream: typed, from the model, or measured from a clip. */
const props = defineProps<{ stream: Stream; label: string }>()
const emit = defineEmits<{ change: [stream: Stream] }>()
const MiniChart = defineAsyncComponent(() => import('../../ui/MiniChart.vue'))

const codecs = [['h264', 'H.264'], ['h265', 'H.265'], ['av1', 'AV1'], ['mjpeg', 'MJPEG']] as const
const kinds = [['constant', 'constant'], ['variable', 'variable'], ['modelled', 'modelled']] as const
const known = [['guess', 'a guess'], ['datasheet', 'a datasheet'], ['surveyed', 'surveyed'], ['measured', 'measured']] as const
const qualities = [[1, '1, least'], [2, '2'], [3, '3, medium'], [4, '4'], [5, '5, best']] as const
const scenes = [['still', 'still'], ['moderate', 'moderate'], ['busy', 'busy']] as const
const sizes = ['640×360', '704×576', '1280×720', '1920×1080', '2560×1440', '2688×1520', '3072×2048', '3840×2160'] as const

const set = (change: Partial<Stream>) => emit('change', { ...props.stream, ...change })
const setRate = (change: Partial<Rate>) => set({ rate: { ...props.stream.rate, ...change } })

const sizeProblem = ref('')
function setSize(text: string) {
  const m = /^(\d{2,5})\s*[x×*]\s*(\d{2,5})$/i.exec(text)
  sizeProblem.value = m ? '' : 'Not a picture size: use 1920×1080.'
  if (m) set({ width: Number(m[1]), height: Number(m[2]) })
}

/** Goes over to another kind of rate, beginning with what the present one comes to. */
function become(kind: Rate['kind']) {
  const [idle, active] = [Math.max(1, Math.round(curve.value?.idleKbps ?? 1000)), Math.max(1, Math.round(curve.value?.activeKbps ?? 4000))]
  const from = props.stream.rate.known ?? 'guess'
  const rates: Record<Rate['kind'], Rate> = {
    constant: { kind, kbps: active, known: from },
    variable: { kind, idleKbps: idle, activeKbps: active, known: from, night: props.stream.rate.night },
    modelled: { kind, quality: 3, scene: 'moderate', night: props.stream.rate.night },
  }
  set({ rate: rates[kind] })
}

const curve = ref<Curve>()
watch(
  () => props.stream,
  async (stream) => {
    const { data } = await api.POST('/api/streams/curve', { body: stream }).catch(() => ({ data: undefined }))
    if (data && stream === props.stream) curve.value = data
  },
  { immediate: true },
)
const lines = (points: Curve['byFPS']) => [
  { name: 'moving', color: 'motion' as const, points: points.map((p) => [p.at, p.activeKbps] as [number, number]) },
  { name: 'still', color: 'base' as const, dashed: true, points: points.map((p) => [p.at, p.idleKbps] as [number, number]) },
]
/** What darkness does; a factor of 1, or none, is no night. */
const evening: Hours[] = [{ from: '20:00', to: '06:00' }]
const setNight = (factor: number, blocks?: Hours[]) =>
  setRate({ night: factor && factor !== 1 ? { factor, hours: { blocks: blocks ?? props.stream.rate.night?.hours.blocks ?? evening } } : undefined })
const isModelled = computed(() => props.stream.rate.kind === 'modelled')
</script>

<template>
  <div class="stream" :aria-label="label" role="group">
    <ChoiceField label="Codec" :value="stream.codec" :choices="codecs" @change="(codec) => set({ codec })" />
    <TextField label="Picture" :value="`${stream.width}×${stream.height}`" :choices="sizes" :problem="sizeProblem" @change="setSize" />
    <NumberField label="Frames" unit="/s" :value="stream.fps" :min="0.1" :max="240" data-field="fps" @change="(fps) => set({ fps })" />
    <NumberField label="Keyframe every" unit="s" :value="stream.gopSeconds" :min="0.01" :max="3600" @change="(gopSeconds) => set({ gopSeconds })" />
    <NumberField label="Keyframe size" none="unknown" unit="kB" :value="stream.keyframeKB" :min="0" :max="100000" @change="(v) => set({ keyframeKB: v || undefined })" />
    <ChoiceField label="Bitrate" :value="stream.rate.kind" :choices="kinds" @change="become" />
    <NumberField v-if="stream.rate.kind === 'constant'" label="Always" unit="kbit/s" :value="stream.rate.kbps" :min="1" :max="1000000" @change="(kbps) => setRate({ kbps })" />
    <template v-if="stream.rate.kind === 'variable'">
      <NumberField label="Still" unit="kbit/s" :value="stream.rate.idleKbps" :min="1" :max="1000000" @change="(idleKbps) => setRate({ idleKbps })" />
      <NumberField label="Moving" unit="kbit/s" :value="stream.rate.activeKbps" :min="1" :max="1000000" @change="(activeKbps) => setRate({ activeKbps })" />
    </template>
    <template v-if="isModelled">
      <ChoiceField label="Quality" :value="stream.rate.quality" :choices="qualities" @change="(quality) => setRate({ quality })" />
      <ChoiceField label="Scene" :value="stream.rate.scene" :choices="scenes" @change="(scene) => setRate({ scene })" />
      <label class="tick" title="While nothing moves the encoder sends a keyframe a quarter as often, and less between them.">
        <input type="checkbox" :checked="stream.rate.adaptive" data-test="adaptive" @change="setRate({ adaptive: ($event.target as HTMLInputElement).checked || undefined })" />
        The encoder adapts: less while nothing moves
      </label>
      <NumberField label="Encoder's limit" none="none" unit="kbit/s" :value="stream.rate.maxKbps ?? 0" :max="1000000" data-field="max-kbps" @change="(v) => setRate({ maxKbps: v || undefined })" />
      <template v-if="curve?.byFPS.length">
        <p class="comes">Comes to <b>{{ kbpsText(curve.idleKbps) }}</b> still, <b>{{ kbpsText(curve.activeKbps) }}</b> moving.</p>
        <MiniChart :lines="lines(curve.byFPS)" x="frames a second" y="kbit/s" :mark="stream.fps" label="What the frame rate does to the bitrate, still and moving" />
        <MiniChart :lines="lines(curve.byGOP)" x="seconds between keyframes" y="kbit/s" :mark="stream.gopSeconds" label="What the keyframe interval does to the bitrate, still and moving" />
      </template>
    </template>
    <ChoiceField v-else label="Known from" :value="stream.rate.known" :choices="known" @change="(k) => setRate({ known: k })" />
    <template v-if="stream.rate.kind !== 'constant'">
      <NumberField label="At night, times" none="as by day" unit="×" :value="stream.rate.night?.factor ?? 0" :max="100" data-field="night" @change="(f) => setNight(f)" />
      <HoursField v-if="stream.rate.night" label="Night" :value="stream.rate.night.hours.blocks" data-test="night-hours" @change="(blocks) => setNight(stream.rate.night!.factor, blocks)" />
      <p v-if="curve?.night" class="comes" data-test="night-cost">At night <b>{{ kbpsText(curve.night.idleKbps) }}</b> still, <b>{{ kbpsText(curve.night.activeKbps) }}</b> moving.</p>
    </template>
    <ClipDrop :stream="stream" @night="(f) => setNight(f)" @accept="(s) => emit('change', s)" />
  </div>
</template>

<style scoped>
.stream {
  display: grid;
  gap: 1px;
}

.comes {
  margin: 4px 0 0;
}

.tick {
  display: flex;
  gap: 6px;
  align-items: baseline;
  min-height: 27px;
}
</style>
