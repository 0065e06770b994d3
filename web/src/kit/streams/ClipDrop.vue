<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import type { Stream } from '../../api/types'
import FilePick from '../../ui/FilePick.vue'
import { kbps, three } from '../../ui/figures'
import MiniChart from '../../ui/MiniChart.vue'
import { useClip } from './useClip'

/** Where a clip is dropped, and what it tells, before it is accepted. */
const props = defineProps<{ stream: Stream }>()
const emit = defineEmits<{ accept: [stream: Stream]; night: [factor: number] }>()

const { clip, reading, failure, read, stop } = useClip()
const over = ref(false)

const m = computed(() => clip.value?.measured)
const lines = computed(() => [
  {
    name: 'kbit/s',
    color: 'base' as const,
    points: (m.value?.kbps ?? []).map((k, i) => [i + 0.5, k] as [number, number]),
  },
])
const areas = computed(() =>
  (m.value?.stretches ?? []).filter((s) => s.active).map((s) => [s.from, s.to] as [number, number]),
)
const otherSize = computed(
  () =>
    clip.value &&
    clip.value.width > 0 &&
    (clip.value.width !== props.stream.width || clip.value.height !== props.stream.height),
)

function drop(event: DragEvent) {
  over.value = false
  const file = event.dataTransfer?.files[0]
  if (file) void read(file)
}

/** A clip taken at night tells what darkness adds to the stream as it is by day. */
async function acceptNight() {
  const { idleKbps, activeKbps, differ } = clip.value!.measured
  const told = await ask(
    api.POST('/api/streams/night', { body: { stream: props.stream, idleKbps, activeKbps, differ } }),
  )
  failure.value = told.problem
  if (!told.data) return
  emit('night', told.data.factor)
  clip.value = undefined
}

const round = (n: number, digits: number) => Number(n.toPrecision(digits))

function accept() {
  const c = clip.value!
  const known = 'measured' as const
  emit('accept', {
    codec: c.codec ?? props.stream.codec,
    width: c.width || props.stream.width,
    height: c.height || props.stream.height,
    fps: round(c.measured.fps, 4),
    gopSeconds: round(c.measured.gopSeconds, 4),
    keyframeKB: round(c.measured.keyframeKB, 4),
    rate: c.measured.differ
      ? {
          kind: 'variable',
          night: props.stream.rate.night,
          idleKbps: round(c.measured.idleKbps, 4),
          activeKbps: round(c.measured.activeKbps, 4),
          known,
        }
      : { kind: 'constant', kbps: round(c.measured.activeKbps, 4), known },
  })
  clip.value = undefined
}
</script>

<template>
  <div
    class="drop"
    :class="{ over }"
    data-test="clip-drop"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="drop"
  >
    <p v-if="reading" role="status">
      {{ reading }} <button type="button" class="plain-button link" @click="stop">Stop</button>
    </p>
    <p v-else-if="!m" class="soft">
      Measure it: drop a clip from the recorder or camera here. It is read in this browser and goes nowhere.
      <FilePick quiet label="Choose a clip" accept="video/*,.mkv,.ts,.mp4,.mov" data-test="clip" @pick="read" />
    </p>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <template v-if="m && clip">
      <h3>{{ clip.name }}</h3>
      <MiniChart
        :lines="lines"
        :areas="areas"
        x="seconds"
        y="kbit/s"
        :height="120"
        label="Bitrate of the clip second by second, moving stretches shaded"
      />
      <dl class="figures" data-test="measured">
        <dt>length</dt>
        <dd>{{ three(m.seconds) }} s</dd>
        <dt>frames</dt>
        <dd>{{ three(m.fps) }} /s</dd>
        <dt>keyframe every</dt>
        <dd>{{ three(m.gopSeconds) }} s</dd>
        <dt>keyframe</dt>
        <dd>{{ three(m.keyframeKB) }} kB</dd>
        <template v-if="m.differ"
          ><dt>idle</dt>
          <dd>{{ kbps(m.idleKbps) }}</dd>
          <dt>moving, shaded</dt>
          <dd>{{ kbps(m.activeKbps) }}</dd></template
        >
        <template v-else
          ><dt>throughout</dt>
          <dd>{{ kbps(m.activeKbps) }}</dd></template
        >
      </dl>
      <p v-if="otherSize" class="soft">The clip is {{ clip.width }}×{{ clip.height }}; the stream becomes so too.</p>
      <p v-for="w in m.warnings" :key="w" class="soft">{{ w }}</p>
      <p class="acts">
        <button type="button" class="act" data-test="accept-clip" @click="accept">Use these values</button>
        <button
          v-if="stream.rate.kind !== 'constant'"
          type="button"
          class="act"
          data-test="accept-night"
          title="The stream stays as it is by day; the clip says how many times that it costs at night."
          @click="acceptNight"
        >
          It is a clip of the night
        </button>
        <button type="button" class="plain-button link" @click="clip = undefined">Cancel</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.drop {
  margin-top: 8px;
  padding: 7px 9px;
  border: 1px dashed var(--soft);
  border-radius: 6px;
  font-size: var(--second);
}

.drop.over {
  background: var(--selected);
  border-color: var(--base);
}

p {
  margin: 2px 0;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  padding-top: 4px;
}
</style>
