<script setup lang="ts">
import { computed, ref } from 'vue'

import { choices, nameOf } from '../api/format'
import type { Stream, StreamName } from '../api/types'
import { channelsOf, sentenceOn } from '../findings/useFindings'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import { count, days, kbps, three } from '../ui/figures'
import StreamForm from './streams/StreamForm.vue'
import StreamTabs from './streams/StreamTabs.vue'

/** What the selected channels come to, and their streams in full. */
const props = defineProps<{ ids: string[] }>()
const site = useSite()
const which = ref<StreamName>('main')
const { streams } = choices

const channels = computed(() => props.ids.flatMap((id) => site.channels.get(id) ?? []))
const first = computed(() => channels.value[0])
const stream = computed(() => first.value?.streams?.[which.value])
const differ = computed(() =>
  channels.value.some((c) => JSON.stringify(c.streams?.[which.value]) !== JSON.stringify(stream.value)),
)
const kinds = computed(
  () => [['', 'of no kind'], ...(site.plan?.kinds ?? []).map((k) => [k.id, k.name] as const)] as const,
)
const mine = computed(() =>
  site.findings.filter((f) => !f.accepted && channelsOf(f).some((id) => props.ids.includes(id))).slice(0, 4),
)
const sum = computed(() => channels.value.reduce((s, c) => s + (site.figures.get(c.id)?.gigabytesPerDay ?? 0), 0))

function set(settings: Stream | undefined) {
  site.change([{ setStream: { channels: props.ids, stream: which.value, ...(settings && { settings }) } }])
}

function setKind(kind: string) {
  if (kind) site.change([{ applyKind: { channels: props.ids, kind } }])
  else site.change([{ setCells: { columns: ['kind'], rows: props.ids.map((channel) => ({ channel, values: [''] })) } }])
}

/** Who decides frames, size and bitrate. */
const setters = [
  ['recorder', 'the recorder'],
  ['camera', 'the camera'],
] as const
function setStreamsBy(by: 'recorder' | 'camera') {
  const rows = props.ids.map((channel) => ({ channel, values: [by === 'camera' ? by : ''] }))
  site.change([{ setCells: { columns: ['streamsBy'], rows } }])
}

/** A stream for a camera that has none yet, like the first that another channel has. */
function add() {
  const like = site.plan?.channels.find((c) => c.streams?.[which.value])?.streams?.[which.value]
  set(
    like ?? {
      codec: 'h264',
      width: 640,
      height: 360,
      fps: 8,
      gopSeconds: 2,
      rate: { kind: 'modelled', quality: 3, scene: 'moderate' },
    },
  )
}
</script>

<template>
  <aside class="pane" aria-label="Selected channels">
    <template v-if="first">
      <h2>{{ channels.length > 1 ? count(channels.length, 'channel') : first.name }}</h2>
      <dl class="figures">
        <dt>writes</dt>
        <dd>{{ three(sum) }} GB a day</dd>
        <template v-if="channels.length === 1">
          <dt>mean</dt>
          <dd>{{ kbps(site.figures.get(first.id)?.averageKbps ?? 0) }}</dd>
          <dt>kept</dt>
          <dd>{{ days(site.figures.get(first.id)?.retentionDays) }}</dd>
        </template>
      </dl>
      <ChoiceField
        v-if="kinds.length > 1"
        label="Camera kind"
        :value="first.kind ?? ''"
        :choices="kinds"
        @change="setKind"
      />
      <ChoiceField
        label="Streams set by"
        :value="first.streamsBy ?? 'recorder'"
        :choices="setters"
        @change="setStreamsBy"
      />
      <ul v-if="mine.length" class="found">
        <li v-for="f in mine" :key="f.id" :class="{ short: f.severity === 'error' }" :title="f.reason">
          {{ sentenceOn(f, ids.length === 1 ? ids[0] : undefined) }}
        </li>
      </ul>
      <StreamTabs v-model="which" />
      <p v-if="differ && channels.length > 1" class="soft">
        They differ; these are the settings of {{ first.name }}. What you change here, all {{ channels.length }} get
        whole.
      </p>
      <template v-if="stream">
        <StreamForm :stream="stream" :label="nameOf(streams, which)" @change="set" />
        <button v-if="which !== 'main'" type="button" class="plain-button link" @click="set(undefined)">
          Take this stream away
        </button>
      </template>
      <p v-else class="soft">
        {{ first.noCamera ? 'No camera here. Write “yes” under Camera, or give it a stream.' : 'No such stream.' }}
        <button type="button" class="plain-button link" @click="add">Add it</button>
      </p>
    </template>
    <p v-else class="soft">
      Select channels in the table, or type in its last row to add one. A block from a spreadsheet can be pasted
      anywhere; rows beyond the end become new channels.
    </p>
  </aside>
</template>

<style scoped>
.pane {
  border-left: 1px solid var(--rule);
  background: var(--sheet);
  padding: 8px 12px;
  overflow: auto;
}

.found {
  margin: 6px 0;
  padding-left: 16px;
  font-size: var(--second);
}
</style>
