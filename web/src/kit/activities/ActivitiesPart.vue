<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef, watch } from 'vue'

import { api, inWords } from '../../api/client'
import type { Activity, Hours } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { count } from '../../ui/figures'
import { readNumber } from '../../ui/number'
import NumberField from '../../ui/NumberField.vue'
import TermTip from '../../ui/TermTip.vue'
import TextField from '../../ui/TextField.vue'
import TypedHours from '../../duties/TypedHours.vue'
import { fresh } from '../../duties/useDutyUse'
import GroupsEditor from './GroupsEditor.vue'
import LogImport from './LogImport.vue'
import RateCurve from './RateCurve.vue'
import { type Reach } from './rates'

/** How often things happen: a library of activities, each with its week. */
const site = useSite()
const chosen = ref('')
const reach = ref<Reach>('working days')
const reaches: Reach[] = ['this day', 'working days', 'every day']
const known = [['guess', 'a guess'], ['surveyed', 'surveyed'], ['measured', 'measured']] as const
const templates = ref<Activity[]>([])
const problem = ref('')
const instead = ref('')
const log = ref<File>()
const picker = useTemplateRef('picker')

onMounted(async () => {
  const { data } = await api.GET('/api/beginnings').catch(() => ({ data: undefined }))
  templates.value = data?.activities ?? []
})

const activities = computed(() => site.plan?.activities ?? [])
watch(activities, (list) => list.some((a) => a.id === chosen.value) || (chosen.value = list[0]?.id ?? ''), { immediate: true })
watch(chosen, () => (problem.value = ''))
const activity = computed(() => activities.value.find((a) => a.id === chosen.value))
const users = (id: string) => [
  ...site.plan!.channels.filter((c) => c.activity === id || c.nuisance === id).map((c) => c.name),
  ...(site.plan!.alarmInputs ?? []).filter((a) => a.activity === id).map((a) => a.name),
]
const others = computed(() => [['', 'nothing'], ...activities.value.filter((a) => a.id !== chosen.value).map((a) => [a.id, a.name] as const)] as const)

function set(change: Partial<Activity>) {
  if (activity.value) site.change([{ setActivity: { activity: { ...activity.value, ...change } } }])
}

/** A rate that is typed, for hours that are typed. */
const rate = ref('')
const typedRate = computed(() => readNumber(rate.value, { min: 0, max: 1e6 }))
const rateProblem = computed(() => ('why' in typedRate.value ? `Events an hour: ${typedRate.value.why}.` : ''))

function setRate(hours: Hours[]) {
  const read = typedRate.value
  if ('value' in read) site.change([{ paintRate: { activity: chosen.value, hours, perHour: read.value } }])
  rate.value = ''
}

function add(like: Activity) {
  const id = fresh(like.name, new Map(activities.value.map((a) => [a.id, a])))
  site.change([{ setActivity: { activity: { ...like, id } } }])
  chosen.value = id
}

function remove() {
  problem.value = ''
  site.change([{ removeActivity: { activity: chosen.value, ...(instead.value && { instead: instead.value }) } }], undefined, (p) => (problem.value = inWords(p)))
}

function pick() {
  log.value = picker.value?.files?.[0]
  if (picker.value) picker.value.value = ''
}

/** Text of a log that is pasted instead of loaded, wherever nothing else is being written. */
useEventListener(document, 'paste', (event) => {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if ((event.target as HTMLElement).matches('input, textarea') || text.split('\n').length < 3) return
  event.preventDefault()
  log.value = new File([text], 'pasted log')
})
</script>

<template>
  <div class="activities">
    <section class="list" aria-label="Activities">
      <button v-for="a in activities" :key="a.id" type="button" class="entry" :class="{ here: a.id === chosen }" :aria-pressed="a.id === chosen" :data-activity="a.id" @click="chosen = a.id">
        <b>{{ a.name }}</b> <span class="soft">{{ a.known }}</span>
      </button>
      <p v-if="!activities.length" class="soft">An <TermTip word="activity" /> says how often something happens, hour by hour, and how long it lasts. Start from one of the examples, or from an event log.</p>
      <label class="soft" for="template">Start from an example</label>
      <select id="template" data-test="template" @change="(e) => { const t = templates[(e.target as HTMLSelectElement).selectedIndex - 1]; if (t) add(t); (e.target as HTMLSelectElement).selectedIndex = 0 }">
        <option>…</option>
        <option v-for="t in templates" :key="t.id">{{ t.name }}</option>
      </select>
      <input ref="picker" type="file" accept=".csv,.txt,.tsv,.xlsx" hidden aria-label="Event log" data-test="log-file" @change="pick" />
      <button type="button" class="act quiet" @click="picker?.click()">From an event log…</button>
      <span class="soft">or paste its lines here</span>
    </section>
    <section v-if="activity" class="sheet" :aria-label="activity.name" tabindex="-1">
      <div class="facts">
        <TextField label="Name" :value="activity.name" :maxlength="100" @change="(name) => name && set({ name })" />
        <NumberField label="An event lasts" unit="s" :value="activity.meanSeconds" :min="0.1" :max="604800" data-field="mean" @change="(meanSeconds) => set({ meanSeconds })" />
        <ChoiceField label="Known as" :value="activity.known" :choices="known" @change="(k) => set({ known: k })" />
      </div>
      <div class="reach" role="radiogroup" aria-label="Days that a drag is meant for">
        <span class="soft">Drag the curve, for</span>
        <button v-for="r in reaches" :key="r" type="button" role="radio" :aria-checked="reach === r" @click="reach = r">{{ r === 'working days' ? 'working days, or the weekend' : r }}</button>
      </div>
      <RateCurve :activity="activity" :reach="reach" @paint="(hours, perHour) => site.change([{ paintRate: { activity: activity!.id, hours, perHour } }])" />
      <TypedHours label="an hour, at" act="Set" :refuse="rateProblem" :keep="(hours) => setRate(hours.blocks)">
        <label>or type <input v-model="rate" class="rate" inputmode="decimal" autocomplete="off" aria-label="Events an hour" data-field="typed-rate" :aria-invalid="!!rate.trim() && !!rateProblem" /></label>
      </TypedHours>
      <GroupsEditor :activity="activity" @change="(groups) => set({ groups })" />
      <p class="soft">
        {{ users(activity.id).length ? `In front of ${users(activity.id).join(', ')}.` : 'Nothing goes by it yet: choose it for channels in the table.' }}
        {{ activity.known === 'guess' ? 'A guess: figures that rest on it may be off by a factor of two.' : activity.known === 'surveyed' ? 'Surveyed: figures may be off by two fifths.' : 'Measured: figures may be off by a seventh.' }}
      </p>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <div class="remove">
        <ChoiceField v-if="users(activity.id).length" label="Replace with" :value="instead" :choices="others" @change="(v) => (instead = v)" />
        <button type="button" class="plain-button link short" data-test="remove-activity" @click="remove">Remove this activity</button>
        <button type="button" class="plain-button link" @click="add({ ...activity, name: `${activity.name} (copy)` })">Duplicate</button>
        <span class="soft">{{ count(activity.blocks?.length ?? 0, 'time block') }}</span>
      </div>
    </section>
    <LogImport v-if="log" :file="log" :into="activity" @done="(id) => { log = undefined; if (id) chosen = id }" />
  </div>
</template>

<style scoped>
.rate {
  width: 64px;
  text-align: right;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 0 6px;
}

.activities {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  gap: 18px;
  padding: 14px 16px;
  overflow: auto;
  align-items: start;
}

.list {
  display: grid;
  gap: 3px;
}

.entry {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  text-align: left;
  background: none;
  border: 1px solid transparent;
  border-radius: 6px;
  padding: 3px 9px;
  cursor: pointer;
}

.entry b {
  font-weight: 400;
}

.entry.here {
  background: var(--sheet);
  border-color: var(--base);
}

.entry.here b {
  font-weight: 600;
}

select {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 3px;
}

.facts {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 4px 26px;
}

.reach {
  display: flex;
  gap: 10px;
  padding: 8px 0 4px;
  font-size: 12.5px;
}

.reach button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 0 3px;
  cursor: pointer;
  color: var(--soft);
}

.reach button[aria-checked='true'] {
  color: var(--ink);
  border-color: var(--base);
}

.remove {
  display: flex;
  align-items: center;
  gap: 18px;
}

@media (max-width: 760px) {
  .activities,
  .facts {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
