<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { DeviceAt } from '../../api/types'
import { useSite } from '../../site/useSite'
import { moment } from '../../time/dates'
import ChoiceField from '../../ui/ChoiceField.vue'
import { kbps } from '../../ui/figures'
import { ago } from '../sheets/ago'
import DeviceEars from './DeviceEars.vue'
import DeviceStream from './DeviceStream.vue'
import type { useDevices } from './useDevices'

/** One camera of a device: its streams, its footage, a snapshot, a stream watched; and what the device notices. */
const props = defineProps<{ device: DeviceAt; devices: ReturnType<typeof useDevices> }>()
const site = useSite()
const { held, begin, at, may } = props.devices
const cameras = computed(() => (held.value?.device.channels ?? []).filter((c) => c.streams.length))
const token = ref(cameras.value[0]?.token ?? '')
watch(cameras, (now) => {
  if (!now.some((c) => c.token === token.value)) token.value = now[0]?.token ?? ''
})
const camera = computed(() => cameras.value.find((c) => c.token === token.value))
const planned = computed(() =>
  site.plan?.channels.find((c) =>
    props.device.channel
      ? c.id === props.device.channel
      : c.recorder === props.device.recorder && c.number === camera.value?.number,
  ),
)
const codecs: Record<string, string> = { h264: 'H.264', h265: 'H.265', mjpeg: 'MJPEG', av1: 'AV1' }
const taking = ref(false)
async function still() {
  const of = planned.value
  if (!camera.value || !of) return
  taking.value = true
  const kept = await begin(
    api.POST('/api/plans/{id}/devices/{device}/still', {
      params: at(props.device),
      body: { token: camera.value.token },
    }),
  )
  taking.value = false
  if (kept) site.change([{ setGround: { channel: of.id, picture: kept.id } }])
}
const open = ref(false)
const { data: calls } = useAnswer(
  () => [open.value, props.device.readAt, props.device.work?.began, props.device.work?.running],
  () =>
    open.value
      ? api.GET('/api/plans/{id}/devices/{device}/calls', {
          params: { path: { ...site.here.path, device: props.device.id } },
        })
      : undefined,
  { keep: true },
)
const forget = ref(false)
</script>

<template>
  <aside aria-label="Cameras of the device" data-test="device-side">
    <h2>Camera</h2>
    <ChoiceField
      label="Channel"
      :value="token"
      :choices="cameras.map((c) => [c.token, `${c.number} ${c.name ?? ''}`] as const)"
      @change="(v) => (token = v)"
    />
    <template v-if="camera">
      <dl>
        <template v-for="s in camera.streams" :key="s.profile">
          <dt>{{ s.name }}</dt>
          <dd>
            {{ codecs[s.codec] ?? s.codec }} {{ s.width }} × {{ s.height }}, {{ s.fps }}/s<template v-if="s.limitKbps"
              >, {{ s.constant ? '' : 'at most ' }}{{ kbps(s.limitKbps) }}</template
            >
          </dd>
        </template>
        <template v-if="camera.oldest">
          <dt>footage</dt>
          <dd>from {{ moment(camera.oldest, site.plan?.site.timeZone) }}</dd>
        </template>
        <template v-if="camera.presets?.length">
          <dt>presets</dt>
          <dd>{{ camera.presets.join(', ') }}</dd>
        </template>
      </dl>
      <p v-if="may && planned && site.role === 'planner'">
        <button type="button" class="act quiet" :disabled="taking" data-test="device-still" @click="still">
          {{ taking ? 'Fetching its picture…' : 'Its picture into the plan' }}
        </button>
      </p>
      <DeviceStream :key="camera.token" :device="device" :devices="devices" :camera="camera" :planned="planned" />
    </template>
    <p v-if="held" class="soft">It speaks: {{ held.device.services.join(', ') }}.</p>
    <h2>What it notices</h2>
    <DeviceEars v-if="may" :device="device" />
    <details class="calls" @toggle="open = ($event.target as HTMLDetailsElement).open">
      <summary>What it was asked</summary>
      <ol v-if="calls?.length">
        <li v-for="(c, i) in calls.slice(0, 200)" :key="i">
          <span class="soft">{{ ago(c.at) }}</span> {{ c.call }}, {{ c.ended }}, {{ c.author }}
        </li>
      </ol>
      <p v-else class="soft">Nothing yet.</p>
    </details>
    <p v-if="may">
      <button v-if="!forget" type="button" class="act quiet" data-test="forget" @click="forget = true">
        Forget this device…
      </button>
      <template v-else>
        <span>Its password and what was read of it go. The plan stays. </span>
        <button type="button" class="act" data-test="device-forget" @click="devices.remove(device)">Forget it</button>
        <button type="button" class="act quiet" @click="forget = false">Keep it</button>
      </template>
    </p>
  </aside>
</template>

<style scoped>
h2 {
  margin: 12px 0 4px;
}

dl {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: 2px 8px;
  margin: 8px 0;
}

dt {
  color: var(--soft);
}

dd {
  margin: 0;
}

ol {
  padding-left: 0;
  list-style: none;
  font-size: var(--second);
  max-height: 220px;
  overflow: auto;
}

summary {
  cursor: pointer;
  min-height: 24px;
}
</style>
