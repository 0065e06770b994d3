<script setup lang="ts">
import { computed, ref } from 'vue'

import { api } from '../../api/client'
import type { Channel, DeviceAt, DeviceChannel } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count, three } from '../../ui/figures'
import type { useDevices } from './useDevices'

/** A stream of a camera, watched for a while: what it costs, by the frames that came. */
const props = defineProps<{
  device: DeviceAt
  devices: ReturnType<typeof useDevices>
  camera: DeviceChannel
  planned: Channel | undefined
}>()
const site = useSite()
const { begin, at, may } = props.devices
const stream = ref(props.camera.streams[0]!.name)
const seconds = ref(30)
const came = computed(() => {
  const w = props.device.work
  return w?.what === 'measure' && !w.running && w.watched?.token === props.camera.token ? w.watched : undefined
})
const watch = () =>
  begin(
    api.POST('/api/plans/{id}/devices/{device}/measure', {
      params: at(props.device),
      body: { token: props.camera.token, stream: stream.value, seconds: seconds.value },
    }),
  )
const has = computed(() => came.value && props.planned?.streams?.[came.value.stream])
function use() {
  const m = came.value?.measured
  const was = has.value
  if (!m || !was || !props.planned) return
  const one = (n: number) => Math.round(n * 10) / 10
  const rate = m.differ
    ? {
        kind: 'variable' as const,
        idleKbps: one(m.idleKbps),
        activeKbps: one(m.activeKbps),
        known: 'measured' as const,
      }
    : was.rate.kind === 'constant'
      ? { kind: 'constant' as const, kbps: one(m.activeKbps), known: 'measured' as const }
      : undefined
  if (rate) site.change([{ setRate: { channels: [props.planned.id], stream: came.value!.stream, rate } }])
}
const usable = computed(
  () => !!came.value?.measured && (came.value.measured.differ || has.value?.rate.kind === 'constant'),
)
</script>

<template>
  <div class="stream">
    <form v-if="may" @submit.prevent="watch">
      <select v-model="stream" aria-label="Stream">
        <option v-for="s in camera.streams" :key="s.name" :value="s.name">{{ s.name }} stream</option>
      </select>
      <label><input v-model.number="seconds" type="number" min="5" max="300" aria-label="Seconds" /> s</label>
      <button type="submit" class="act quiet" :disabled="device.work?.running" data-test="device-watch">
        Watch it
      </button>
    </form>
    <div v-if="came" data-test="watched">
      <p v-if="came.measured">
        <template v-if="came.measured.differ"
          >{{ three(came.measured.idleKbps) }} kbit/s still, {{ three(came.measured.activeKbps) }} moving</template
        ><template v-else
          >{{ three(came.measured.activeKbps) }} kbit/s; nothing began or ended while it was watched</template
        >, {{ three(came.measured.fps) }} frames a second, a keyframe every {{ three(came.measured.gopSeconds) }} s.
      </p>
      <p v-else class="short">{{ came.why }}</p>
      <p class="soft">
        {{ count(came.frames, 'frame') }} of {{ count(came.packets, 'packet') }},
        {{
          came.lost
            ? `${came.lost === 1 ? '1 packet was' : `${came.lost} packets were`} lost: it is more than this`
            : 'none lost'
        }}.
      </p>
      <button
        v-if="usable && planned && site.role === 'planner'"
        type="button"
        class="act quiet"
        data-test="use-watched"
        @click="use"
      >
        Into the plan as measured
      </button>
      <p v-else-if="came.measured && !came.measured.differ" class="soft">
        A variable bitrate needs still and moving: watch it while somebody walks there.
      </p>
    </div>
  </div>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}

input {
  width: var(--number);
}

p {
  margin: 4px 0;
}
</style>
