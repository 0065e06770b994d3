<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import PlanGlance from '../../glance/PlanGlance.vue'
import { choices, nameOf } from '../../api/format'
import type { Kind, Stream, StreamName } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import TextField from '../../ui/TextField.vue'
import StreamForm from '../streams/StreamForm.vue'
import StreamTabs from '../streams/StreamTabs.vue'
import { useTable } from '../table/useTable'
import TermTip from '../../ui/TermTip.vue'
import { idText } from '../../site/asText'
import { useInAddress } from '../../site/useInAddress'

/** Camera kinds: named sets of stream settings, kept with the plan and followed by channels. */
const site = useSite()
const table = useTable()
void table.load()

const kinds = computed(() => site.plan?.kinds ?? [])
const chosen = ref('')
watch(kinds, (list) => list.some((k) => k.id === chosen.value) || (chosen.value = list[0]?.id ?? ''), {
  immediate: true,
})
useInAddress(
  'kind',
  idText(chosen, () => kinds.value.map((k) => k.id)),
  true,
  'a camera kind',
)
const kind = computed(() => kinds.value.find((k) => k.id === chosen.value))
const which = ref<StreamName>('main')
const { streams } = choices
const stream = computed(() => kind.value?.streams[which.value])
const members = computed(() => (site.plan?.channels ?? []).filter((c) => c.kind === chosen.value))
const titles = computed(
  () =>
    new Map(
      table.columns.map((c) => [
        c.id,
        `${c.group.includes('stream') ? `${c.group.split(' ')[0]!.toLowerCase()} ` : ''}${c.title.toLowerCase()}`,
      ]),
    ),
)
const departs = (id: string) => (table.rows.get(id)?.departs ?? []).map((c) => titles.value.get(c) ?? c)

function set(change: Partial<Kind>) {
  if (kind.value) site.change([{ setKind: { kind: { ...kind.value, ...change } } }])
}

function setStream(settings: Stream | undefined) {
  const streams = { ...kind.value!.streams }
  if (settings) streams[which.value] = settings
  else delete streams[which.value]
  set({ streams })
}

const plain: Stream = {
  codec: 'h265',
  width: 1920,
  height: 1080,
  fps: 15,
  gopSeconds: 2,
  rate: { kind: 'modelled', quality: 3, scene: 'moderate' },
}

/** A new kind begins as the settings of a channel that has none yet, or plainly. */
async function add() {
  const like = site.plan?.channels.find((c) => !c.kind && c.streams?.main)
  const name = like ? `Like ${like.name}` : 'New kind'
  const [id] = (await site.freeIds('camera kind', name)) ?? []
  if (!id) return
  site.change([
    {
      setKind: {
        kind: {
          id,
          name,
          streams: like?.streams ?? { main: plain },
          ...(like?.audioKbps && { audioKbps: like.audioKbps }),
        },
      },
    },
  ])
  chosen.value = id
}
</script>

<template>
  <div class="kinds">
    <section aria-label="Camera kinds">
      <button
        v-for="k in kinds"
        :key="k.id"
        type="button"
        class="entry"
        :class="{ here: k.id === chosen }"
        :aria-pressed="k.id === chosen"
        :data-kind="k.id"
        @click="chosen = k.id"
      >
        <b>{{ k.name }}</b>
        <span class="soft">{{ count(site.plan!.channels.filter((c) => c.kind === k.id).length, 'channel') }}</span>
      </button>
      <p v-if="!kinds.length" class="soft">
        A camera kind is a named set of stream settings, such as “4 MP dome, quay”. Give it to many channels; when the
        kind changes, they follow, except in what you set on them by themselves.
      </p>
      <button type="button" class="act quiet" data-test="new-kind" @click="add">New kind</button>
    </section>
    <section v-if="kind" class="sheet" :aria-label="kind.name">
      <TextField label="Name" :value="kind.name" :maxlength="100" @change="(name) => name && set({ name })" />
      <NumberField
        label="Audio"
        unit="kbit/s"
        :value="kind.audioKbps ?? 0"
        :max="10000"
        @change="(v) => set({ audioKbps: v || undefined })"
      />
      <StreamTabs v-model="which" />
      <StreamForm v-if="stream" :stream="stream" :label="nameOf(streams, which)" @change="setStream" />
      <p v-else class="soft">
        No such stream.
        <button
          type="button"
          class="plain-button link"
          @click="setStream({ ...plain, codec: 'h264', width: 640, height: 360, fps: 8 })"
        >
          Add it
        </button>
      </p>
      <button v-if="stream && which !== 'main'" type="button" class="plain-button link" @click="setStream(undefined)">
        Take this stream away
      </button>
      <p>
        <button
          type="button"
          class="plain-button link short"
          data-test="remove-kind"
          @click="site.change([{ removeKind: { kind: kind.id } }])"
        >
          Remove this kind
        </button>
        <span class="soft">The settings of its channels stay.</span>
      </p>
    </section>
    <section v-if="kind" class="members" aria-label="Channels of this kind">
      <h2>{{ count(members.length, 'channel') }} of this <TermTip word="camera kind">kind</TermTip></h2>
      <ul>
        <li v-for="c in members" :key="c.id">
          <span class="soft number">{{ c.number }}</span> {{ c.name }}
          <span v-if="departs(c.id).length" class="departs"
            >{{ departs(c.id).join(', ') }} {{ departs(c.id).length === 1 ? 'differs' : 'differ' }} ·
            <button
              type="button"
              class="plain-button link"
              @click="site.change([{ applyKind: { channels: [c.id], kind: kind.id } }])"
            >
              Reset to kind
            </button></span
          >
        </li>
      </ul>
      <p v-if="!members.length" class="soft">
        Select channels in the table and choose this kind beside it, or write its name in the column “Camera kind”.
      </p>
      <PlanGlance />
    </section>
  </div>
</template>

<style scoped>
.kinds {
  display: grid;
  grid-template-columns: 220px 330px minmax(0, 1fr);
  gap: 18px;
  padding: 14px 16px;
  overflow: auto;
  align-items: start;
}

.entry {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  width: 100%;
  text-align: left;
  background: none;
  border: 1px solid transparent;
  border-radius: 6px;
  align-content: center;
  min-height: var(--row);
  padding: 2px 9px;
  cursor: pointer;
}

.entry.here {
  background: var(--sheet);
  border-color: var(--base);
}

[data-test='remove-kind'] {
  margin-right: 6px;
}

.members {
  display: flex;
  flex-direction: column;
  align-self: stretch;
}

.members > .glance {
  padding: 16px 0 0;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
}

.departs {
  margin-left: 10px;
  text-decoration: underline dotted var(--alarm) 1.5px;
  text-underline-offset: 3px;
}

@media (max-width: 760px) {
  .kinds {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
