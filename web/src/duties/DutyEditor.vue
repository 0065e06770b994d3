<script setup lang="ts">
import { ElButton, ElDialog, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { api } from '../api/client'
import type { Duty } from '../api/types'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import { count } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import DutySwatch from './DutySwatch.vue'
import { explain } from './explain'
import { fresh, useDutyUse } from './useDutyUse'
import { useHand } from '../hand/useHand'

/** Makes, changes, duplicates and removes duties. An empty id makes a new one. */
const editing = defineModel<string | undefined>({ required: true })
const site = useSite()
const hand = useHand()

const streams = [['main', 'main stream'], ['sub', 'sub stream'], ['third', 'third stream']] as const
const idle = [['none', 'nothing'], ...streams] as const
const amounts = [['whole', 'every frame'], ['keyframes', 'keyframes only'], ['fewer', 'fewer frames']] as const
const causes = [['none', 'no event'], ['motion', 'motion'], ['alarm', 'an alarm'], ['any', 'motion or an alarm'], ['all', 'motion and an alarm at once']] as const

const name = ref('')
const base = ref<(typeof idle)[number][0]>('main')
const amount = ref<(typeof amounts)[number][0]>('whole')
const fps = ref(5)
const cause = ref<(typeof causes)[number][0]>('motion')
const eventStream = ref<'main' | 'sub' | 'third'>('main')
const instead = ref('')
const fewer = ref(false) // whether the event layer keeps fewer frames
const eventFPS = ref(10)
const ready = ref<Duty[]>([]) // ready-made duties, to begin with

const original = computed(() => (editing.value ? site.duties.get(editing.value) : undefined))
const { users } = useDutyUse(editing)
const others = computed(() => (site.plan?.duties ?? []).filter((d) => d.id !== editing.value).map((d) => [d.id, d.name] as const))

watch(editing, (id) => {
  if (id === undefined) return
  take(original.value)
  instead.value = others.value[0]?.[0] ?? ''
  if (!id && !ready.value.length) void api.GET('/api/beginnings').then(({ data }) => (ready.value = data?.duties ?? []), () => undefined)
})

/** Fills the fields from a duty, or from nothing. */
function take(d: Duty | undefined) {
  name.value = d?.name ?? ''
  base.value = d ? (d.base?.stream ?? 'none') : 'sub'
  amount.value = d?.base?.keyframesOnly ? 'keyframes' : d?.base?.fps ? 'fewer' : 'whole'
  fps.value = d?.base?.fps ?? 5
  cause.value = !d?.event ? (d ? 'none' : 'motion') : d.event.on.length === 2 ? (d.event.match ?? 'any') : d.event.on[0]!
  eventStream.value = d?.event?.stream ?? 'main'
  fewer.value = !!d?.event?.fps
  eventFPS.value = d?.event?.fps ?? 10
}

const layers = computed<Pick<Duty, 'base' | 'event'>>(() => ({
  ...(base.value !== 'none' && {
    base: {
      stream: base.value,
      ...(amount.value === 'keyframes' && { keyframesOnly: true }),
      ...(amount.value === 'fewer' && { fps: fps.value }),
    },
  }),
  ...(cause.value !== 'none' && {
    event: {
      stream: eventStream.value,
      on: cause.value === 'any' || cause.value === 'all' ? (['motion', 'alarm'] as const).slice() : [cause.value],
      ...((cause.value === 'any' || cause.value === 'all') && { match: cause.value }),
      ...(fewer.value && { fps: eventFPS.value }),
    },
  }),
}))
const duty = computed<Duty>(() => ({ id: editing.value || fresh(name.value, site.duties), name: name.value.trim(), ...layers.value }))
const problem = computed(() => (name.value.trim() ? '' : 'Give it a name.'))

function keep(asNew: boolean) {
  if (problem.value) return
  const kept = asNew ? { ...duty.value, id: fresh(name.value, site.duties), name: duty.value.name === original.value?.name ? `${duty.value.name} (copy)` : duty.value.name } : duty.value
  site.change([{ setDuty: { duty: kept } }])
  hand.picked = kept.id
  editing.value = undefined
}

function remove() {
  site.change([{ removeDuty: { duty: editing.value!, ...(users.value.length && { instead: instead.value }) } }])
  editing.value = undefined
}
</script>

<template>
  <ElDialog :model-value="editing !== undefined" :title="original ? `Duty: ${original.name}` : 'A new duty'" width="470" @close="editing = undefined">
    <div v-if="!original && ready.length" class="ready" role="group" aria-label="Begin with a ready-made duty">
      <button v-for="d in ready" :key="d.id" type="button" class="act quiet" :title="explain(d)" :data-ready="d.id" @click="take(d)"><DutySwatch :duty="d" /> {{ d.name }}</button>
    </div>
    <form class="form" @submit.prevent="keep(false)">
      <label for="duty-name">Name</label>
      <ElInput id="duty-name" v-model="name" :maxlength="100" data-test="duty-name" />
      <ChoiceField :value="base" label="While nothing happens, write" :choices="idle" @change="(v) => (base = v)" />
      <template v-if="base !== 'none'">
        <ChoiceField label="of it" :value="amount" :choices="amounts" @change="(v) => (amount = v)" />
        <NumberField v-if="amount === 'fewer'" label="Frames kept" unit="/s" :value="fps" :min="0.1" :max="240" @change="(v) => (fps = v)" />
      </template>
      <ChoiceField label="An event is" :value="cause" :choices="causes" @change="(v) => (cause = v)" />
      <ChoiceField v-if="cause !== 'none'" label="and then write" :value="eventStream" :choices="streams" @change="(v) => (eventStream = v)" />
      <template v-if="cause !== 'none'">
        <ChoiceField label="of that" :value="fewer ? 'fewer' : 'whole'" :choices="[['whole', 'every frame'], ['fewer', 'fewer frames']] as const" @change="(v) => (fewer = v === 'fewer')" />
        <NumberField v-if="fewer" label="Frames kept" unit="/s" :value="eventFPS" :min="0.1" :max="240" @change="(v) => (eventFPS = v)" />
      </template>
      <p class="says"><DutySwatch :duty="duty" /> {{ explain(layers) }}.</p>
      <p v-if="original" class="soft">{{ users.length ? `Used by ${count(users.length, 'channel')}; a change holds for all of them.` : 'No channel uses it.' }}</p>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    </form>
    <div v-if="original && others.length" class="remove">
      <ChoiceField v-if="users.length" label="Replace with" :value="instead" :choices="others" @change="(v) => (instead = v)" />
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
  font-size: 12px;
  padding: 1px 7px;
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
