<script setup lang="ts">
import { ElButton, ElDialog, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { choices } from '../api/format'
import type { Duty } from '../api/types'
import { useHand } from '../hand/useHand'
import { useSite } from '../site/useSite'
import { useUses } from '../site/useUses'
import ChoiceField from '../ui/ChoiceField.vue'
import { count } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import DutySwatch from './DutySwatch.vue'
import { explain } from './explain'
import LayerSettings from './LayerSettings.vue'
import { amounts, causes, useDutyForm } from './useDutyForm'
import { useDutyUse } from './useDutyUse'

/** Makes, changes, duplicates and removes duties. An empty id makes a new one. */
const editing = defineModel<string | undefined>({ required: true })
const site = useSite()
const hand = useHand()

const streams = choices.streams
const { data: beginnings } = useAnswer(
  () => editing.value === '',
  () => (editing.value === '' ? api.GET('/api/beginnings') : undefined),
)
const ready = computed(() => beginnings.value?.duties ?? []) // ready-made duties, to begin with
const idle = computed(() => [['none', 'nothing'] as const, ...streams.value])
const { name, base, amount, fps, baseSettings, cause, eventStream, fewer, eventFPS, eventSettings, layers, take } =
  useDutyForm()
const instead = ref('')

const original = computed(() => (editing.value ? site.duties.get(editing.value) : undefined))
const { users } = useDutyUse(editing)
const { uses } = useUses('duty', () => editing.value || undefined)
const others = computed(() =>
  (site.plan?.duties ?? []).filter((d) => d.id !== editing.value).map((d) => [d.id, d.name] as const),
)

watch(
  editing,
  (id) => {
    if (id === undefined) return
    take(original.value)
    instead.value = others.value[0]?.[0] ?? ''
  },
  { immediate: true },
)

const duty = computed<Duty>(() => ({
  id: editing.value ?? '',
  name: name.value.trim(),
  ...layers.value,
}))
const problem = computed(() => (name.value.trim() ? '' : 'Give it a name.'))

async function keep(asNew: boolean) {
  if (problem.value) return
  const kept = { ...duty.value }
  if (asNew && kept.name === original.value?.name) kept.name += ' (copy)'
  if (asNew || !kept.id) {
    const [id] = (await site.freeIds('duty', kept.name)) ?? []
    if (!id) return
    kept.id = id
  }
  site.change([{ setDuty: { duty: kept } }])
  hand.picked = kept.id
  editing.value = undefined
}

function remove() {
  site.change([{ removeDuty: { duty: editing.value!, ...(uses.value?.length && { instead: instead.value }) } }])
  editing.value = undefined
}
</script>

<template>
  <ElDialog
    :model-value="editing !== undefined"
    :title="original ? `Duty: ${original.name}` : 'A new duty'"
    width="470"
    @close="editing = undefined"
  >
    <div v-if="!original && ready.length" class="ready" role="group" aria-label="Begin with a ready-made duty">
      <button
        v-for="d in ready"
        :key="d.id"
        type="button"
        class="act quiet"
        :title="explain(d)"
        :data-ready="d.id"
        @click="take(d)"
      >
        <DutySwatch :duty="d" /> {{ d.name }}
      </button>
    </div>
    <form class="form" @submit.prevent="keep(false)">
      <label for="duty-name">Name</label>
      <ElInput id="duty-name" v-model="name" :maxlength="100" data-test="duty-name" />
      <ChoiceField :value="base" label="While nothing happens, write" :choices="idle" @change="(v) => (base = v)" />
      <div v-if="base !== 'none'" class="layer" data-layer="base">
        <ChoiceField label="Frames" :value="amount" :choices="amounts" @change="(v) => (amount = v)" />
        <NumberField
          v-if="amount === 'fewer'"
          label="Frames"
          unit="/s"
          :value="fps"
          member="duties.base.fps"
          @change="(v) => (fps = v)"
        />
        <LayerSettings layer="base" :settings="baseSettings" @change="(s) => (baseSettings = s)" />
      </div>
      <ChoiceField label="An event is" :value="cause" :choices="causes" @change="(v) => (cause = v)" />
      <ChoiceField
        v-if="cause !== 'none'"
        label="and then write"
        :value="eventStream"
        :choices="streams"
        @change="(v) => (eventStream = v)"
      />
      <div v-if="cause !== 'none'" class="layer" data-layer="event">
        <ChoiceField
          label="Frames"
          :value="fewer ? 'fewer' : 'whole'"
          :choices="
            [
              ['whole', 'every frame'],
              ['fewer', 'fewer frames'],
            ] as const
          "
          @change="(v) => (fewer = v === 'fewer')"
        />
        <NumberField
          v-if="fewer"
          label="Frames"
          unit="/s"
          :value="eventFPS"
          member="duties.base.fps"
          @change="(v) => (eventFPS = v)"
        />
        <LayerSettings layer="event" :settings="eventSettings" @change="(s) => (eventSettings = s)" />
      </div>
      <p class="says"><DutySwatch :duty="duty" /> {{ explain(layers) }}.</p>
      <p v-if="original" class="soft">
        {{
          users.length
            ? `Used by ${count(users.length, 'channel')}; a change applies to all of them.`
            : 'No channel uses it.'
        }}
      </p>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    </form>
    <div v-if="original && others.length" class="remove">
      <ChoiceField
        v-if="uses?.length"
        label="Replace with"
        :value="instead"
        :choices="others"
        @change="(v) => (instead = v)"
      />
      <button type="button" class="plain-button short" data-test="duty-remove" @click="remove">Remove this duty</button>
    </div>
    <template #footer>
      <ElButton @click="editing = undefined">Cancel</ElButton>
      <ElButton v-if="original" @click="keep(true)">Keep as a new duty</ElButton>
      <ElButton type="primary" data-test="duty-keep" @click="keep(false)">Keep</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 5px;
}

.form :deep(.field),
.remove :deep(.field) {
  grid-template-columns: minmax(0, 1fr) 200px;
}

.layer {
  display: contents;
}

.ready {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin-bottom: 10px;
}

.ready .act {
  display: flex;
  gap: 5px;
  align-items: center;
  font-size: var(--second);
}

.says {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 8px 0 0;
}

.remove {
  display: grid;
  gap: 6px;
  justify-items: start;
  margin-top: 10px;
  padding-top: 8px;
  border-top: 1px solid var(--rule);
}

.remove :deep(.field) {
  width: 100%;
}
</style>
