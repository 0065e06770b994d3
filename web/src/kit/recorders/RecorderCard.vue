<script setup lang="ts">
import { computed, ref } from 'vue'

import { inWords } from '../../api/client'
import type { Recorder } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import TextField from '../../ui/TextField.vue'
import PoolCard from './PoolCard.vue'
import TakesForm from './TakesForm.vue'
import TermTip from '../../ui/TermTip.vue'

/** One recorder: what it can, what is asked of it, and its pools. */
const props = defineProps<{ recorder: Recorder }>()
defineEmits<{ addPool: [] }>()
const site = useSite()
const problem = ref('')
const figures = computed(() => site.recorders.find((r) => r.id === props.recorder.id))
const used = computed(() => site.plan!.channels.filter((c) => c.recorder === props.recorder.id).length)

function set(change: Partial<Recorder>) {
  problem.value = ''
  site.change(
    [{ setRecorder: { recorder: { ...props.recorder, ...change } } }],
    undefined,
    (p) => (problem.value = inWords(p)),
  )
}

/** Other recorders whose bandwidths or buffer differ from this one's. */
const others = computed(() =>
  site.plan!.recorders.filter(
    (r) =>
      r.ingestMbps !== props.recorder.ingestMbps ||
      r.driveMBps !== props.recorder.driveMBps ||
      r.preSecondsLimit !== props.recorder.preSecondsLimit,
  ),
)

/** Gives them what is this one's; names, channels, licences and pools are each one's own. */
function giveAll() {
  const { ingestMbps, driveMBps, preSecondsLimit } = props.recorder
  problem.value = ''
  site.change(
    others.value.map((r) => ({ setRecorder: { recorder: { ...r, ingestMbps, driveMBps, preSecondsLimit } } })),
    undefined,
    (p) => (problem.value = inWords(p)),
  )
}

function remove() {
  problem.value = ''
  site.change([{ removeRecorder: { recorder: props.recorder.id } }], undefined, (p) => (problem.value = inWords(p)))
}

const share = (part: number, whole: number) => `${Math.min(100, (100 * part) / Math.max(whole, 0.001))}%`
</script>

<template>
  <section class="sheet recorder" :aria-label="recorder.name" :data-recorder="recorder.id">
    <div class="settings">
      <TextField label="Recorder" :value="recorder.name" :maxlength="100" @change="(name) => name && set({ name })" />
      <NumberField
        whole
        label="Channels"
        :value="recorder.channels"
        :min="1"
        :max="5000"
        data-field="channels"
        @change="(v) => set({ channels: v })"
      />
      <NumberField
        whole
        label="Licences"
        none="all"
        :value="recorder.licences"
        :max="5000"
        @change="(v) => set({ licences: v || undefined })"
      />
      <NumberField
        label="Intake"
        unit="Mbit/s"
        :value="recorder.ingestMbps"
        :min="0.1"
        :max="1000000"
        data-field="ingest"
        @change="(v) => set({ ingestMbps: v })"
      />
      <NumberField
        label="Writes to drives"
        none="unknown"
        unit="MB/s"
        :value="recorder.driveMBps"
        :max="1000000"
        @change="(v) => set({ driveMBps: v || undefined })"
      />
      <NumberField
        label="Pre-event limit"
        none="unknown"
        unit="s"
        :value="recorder.preSecondsLimit"
        :max="86400"
        @change="(v) => set({ preSecondsLimit: v || undefined })"
      />
      <TextField
        label="Address"
        :value="recorder.address"
        :maxlength="200"
        placeholder="host or host:port"
        @change="(address) => set({ address: address || undefined })"
      />
      <TakesForm :recorder="recorder" @change="(takes) => set({ takes })" />
      <dl v-if="figures" class="load">
        <dt>Channels</dt>
        <dd>
          <span class="gauge"><span :style="{ width: share(used, recorder.channels) }" /></span> {{ used }} of
          {{ recorder.channels }}, {{ count(figures.channels, 'camera') }}
        </dd>
        <dt><TermTip word="intake">Intake</TermTip></dt>
        <dd>
          <span class="gauge" :class="{ over: figures.intakeMbps > recorder.ingestMbps }"
            ><span :style="{ width: share(figures.intakeMbps, recorder.ingestMbps) }"
          /></span>
          {{ three(figures.intakeMbps) }} of {{ three(recorder.ingestMbps) }} Mbit/s
        </dd>
        <dt>Written</dt>
        <dd>{{ three(figures.averageMbps) }} Mbit/s mean, {{ three(figures.busiestMbps) }} in the busiest hour</dd>
      </dl>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <p class="acts">
        <button type="button" class="act quiet" data-test="new-pool" @click="$emit('addPool')">New pool</button>
        <button
          v-if="others.length"
          type="button"
          class="plain-button link"
          data-test="to-all-recorders"
          title="Intake, writing speed and pre-event limit; names, channels, licences and pools stay"
          @click="giveAll"
        >
          Same limits for {{ count(others.length, 'other recorder') }}
        </button>
        <button type="button" class="plain-button link short" data-test="remove-recorder" @click="remove">
          Remove this recorder
        </button>
      </p>
    </div>
    <div class="pools"><PoolCard v-for="p in recorder.pools" :key="p.id" :recorder="recorder" :pool="p" /></div>
  </section>
</template>

<style scoped>
.recorder {
  display: grid;
  grid-template-columns: 300px minmax(0, 1fr);
  gap: 22px;
  width: 100%;
}

.load {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 10px;
  margin: 10px 0 6px;
  font-size: var(--second);
}

.load dt {
  color: var(--soft);
}

.load dd {
  margin: 0;
}

.gauge {
  display: inline-block;
  width: 90px;
  height: 7px;
  background: var(--rule);
  margin-right: 6px;
}

.gauge span {
  display: block;
  height: 100%;
  background: var(--base);
}

.gauge.over span {
  background: var(--short);
}

.acts {
  display: flex;
  gap: 14px;
  margin: 6px 0 0;
}

.pools {
  display: grid;
  gap: 12px;
  align-content: start;
}

@media (max-width: 760px) {
  .recorder {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
