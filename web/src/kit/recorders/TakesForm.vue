<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import { choices } from '../../api/format'
import type { Recorder, SiteLine, Takes } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import NumberField from '../../ui/NumberField.vue'
import TermTip from '../../ui/TermTip.vue'
import TextField from '../../ui/TextField.vue'
import { inWords, readList, tidy, withTakes } from './takes'

/** What can be entered at a recorder: ready-made answers, then each by itself. */
const props = defineProps<{ recorder: Recorder }>()
const emit = defineEmits<{ change: [takes: Takes | undefined] }>()
const site = useSite()
const takes = computed<Takes>(() => props.recorder.takes ?? {})
const set = (change: Partial<Takes>) => emit('change', tidy({ ...takes.value, ...change }))
const any = '' as const
const none: string | undefined = undefined // nothing is chosen before something is

const lists = [
  ['preSeconds', 'Pre-event, s', 3600],
  ['postSeconds', 'Post-event, s', 86400],
  ['framesPerSecond', 'Frames a second', 240],
] as const
const wrong = ref<Record<string, string>>({})
function setList(name: (typeof lists)[number][0], text: string, max: number) {
  const read = readList(text, { min: name === 'framesPerSecond' ? 0.01 : 0, max })
  wrong.value = { ...wrong.value, [name]: 'why' in read ? read.why : '' }
  if ('values' in read) set({ [name]: read.values })
}

const copies = computed(() => takes.value.copies ?? choices.copiesTaken.value.map(([id]) => id))
function toggle(id: (typeof copies.value)[number], on: boolean) {
  const next = choices.copiesTaken.value.map(([c]) => c).filter((c) => (c === id ? on : copies.value.includes(c)))
  set({ copies: next.length === choices.copiesTaken.value.length ? undefined : next })
}

function choose(id: string) {
  const ready = choices.takes.value.find((c) => c.id === id)
  if (ready) emit('change', ready.clear ? undefined : tidy({ ...takes.value, ...ready.takes }))
}

/** Recorders of other sites, asked for when somebody wants to copy from there. */
const here = computed(() => withTakes(site.plan!.recorders, props.recorder.id))
const sites = shallowRef<SiteLine[]>()
const there = shallowRef<Recorder[]>([])
const problem = ref('')
async function listSites() {
  const told = await ask(api.GET('/api/sites'))
  problem.value = told.problem
  sites.value = told.data?.filter((s) => s.id !== site.id)
}
async function openSite(id: string) {
  const told = await ask(api.GET('/api/sites/{id}', { params: { path: { id } } }))
  problem.value = told.problem
  there.value = withTakes(told.data?.plan.plan.recorders ?? [])
  if (told.data && !there.value.length) problem.value = 'Of no recorder there is it said what it takes.'
}
</script>

<template>
  <details class="takes" data-test="takes">
    <summary>
      Takes <span class="soft">{{ inWords(recorder.takes) }}</span>
    </summary>
    <p class="soft">
      What can be entered at it. What cannot stands <TermTip word="as entered" /> beside the plan: in the verdict, on
      Week, in Findings and Handover.
    </p>
    <div class="ready" role="group" aria-label="Ready-made answers">
      <button
        v-for="c in choices.takes.value"
        :key="c.id"
        type="button"
        class="act quiet"
        :data-takes="c.id"
        @click="choose(c.id)"
      >
        {{ c.name }}
      </button>
    </div>
    <NumberField
      whole
      label="Times on steps of"
      unit="min"
      none="any"
      :value="takes.stepMinutes"
      :max="1440"
      data-field="step"
      @change="(v) => set({ stepMinutes: v || undefined })"
    />
    <NumberField
      whole
      label="Periods a day"
      none="any"
      :value="takes.periodsPerDay"
      :max="1440"
      @change="(v) => set({ periodsPerDay: v || undefined })"
    />
    <ChoiceField
      label="Layers"
      :value="takes.layers ?? any"
      :choices="[[any, 'not said'], ...choices.layers.value]"
      @change="(v) => set({ layers: v || undefined })"
    />
    <TextField
      v-for="[name, label, max] in lists"
      :key="name"
      :label="label"
      :value="takes[name]?.join(', ')"
      placeholder="any"
      :problem="wrong[name]"
      :data-field="name"
      @change="(text) => setList(name, text, max)"
    />
    <NumberField
      whole
      label="Steps of sensitivity"
      none="any"
      :value="takes.sensitivitySteps"
      :max="1000"
      @change="(v) => set({ sensitivitySteps: v || undefined })"
    />
    <ChoiceField
      label="Areas"
      :value="takes.areas ?? any"
      :choices="[[any, 'any way'], ...choices.areasTaken.value]"
      @change="(v) => set({ areas: v || undefined })"
    />
    <template v-if="takes.areas === 'grid'">
      <NumberField
        whole
        label="Columns"
        :value="takes.gridColumns ?? 22"
        :min="1"
        :max="128"
        @change="(v) => set({ gridColumns: v })"
      />
      <NumberField
        whole
        label="Rows"
        :value="takes.gridRows ?? 18"
        :min="1"
        :max="96"
        @change="(v) => set({ gridRows: v })"
      />
    </template>
    <fieldset>
      <legend>It copies</legend>
      <label v-for="[id, name] in choices.copiesTaken.value" :key="id"
        ><input
          type="checkbox"
          :checked="copies.includes(id)"
          @change="toggle(id, ($event.target as HTMLInputElement).checked)"
        />
        {{ name }}</label
      >
    </fieldset>
    <ChoiceField
      v-if="here.length"
      label="The same as"
      :value="none"
      :choices="here.map((r) => [r.id, r.name] as const)"
      @change="(id) => emit('change', here.find((r) => r.id === id)?.takes)"
    />
    <p>
      <button v-if="!sites" type="button" class="plain-button link" data-test="takes-elsewhere" @click="listSites">
        As a recorder of another site…
      </button>
    </p>
    <ChoiceField
      v-if="sites"
      label="Site"
      :value="none"
      :choices="sites.map((s) => [s.id, s.name] as const)"
      @change="(id) => id && openSite(id)"
    />
    <ChoiceField
      v-if="there.length"
      label="Recorder there"
      :value="none"
      :choices="there.map((r) => [r.id, r.name] as const)"
      @change="(id) => emit('change', there.find((r) => r.id === id)?.takes)"
    />
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  </details>
</template>

<style scoped>
.takes {
  margin: 4px 0;
}

summary {
  cursor: pointer;
  min-height: var(--row);
}

p {
  margin: 2px 0 6px;
  font-size: var(--second);
}

.ready {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-bottom: 6px;
}

fieldset {
  border: 0;
  margin: 4px 0;
  padding: 0;
}

legend {
  padding: 0;
}

fieldset label {
  display: flex;
  gap: 6px;
  font-size: var(--second);
}
</style>
