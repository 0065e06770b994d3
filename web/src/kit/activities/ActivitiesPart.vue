<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { useAnswer } from '../../api/ask'
import { api, inWords } from '../../api/client'
import type { Activity } from '../../api/types'
import ActivityFacts from '../../forms/ActivityFacts.vue'
import ActivityRates from '../../forms/ActivityRates.vue'
import { useSite } from '../../site/useSite'
import { useUses } from '../../site/useUses'
import ChoiceField from '../../ui/ChoiceField.vue'
import FilePick from '../../ui/FilePick.vue'
import { count } from '../../ui/figures'
import TermTip from '../../ui/TermTip.vue'
import TextField from '../../ui/TextField.vue'
import ActivityDoubt from './ActivityDoubt.vue'
import GroupsEditor from './GroupsEditor.vue'
import LogImport from './LogImport.vue'
import { idText } from '../../site/asText'
import { useInAddress } from '../../site/useInAddress'

/** How often things happen: a library of activities, each with its week. */
const site = useSite()
const chosen = ref('')
const problem = ref('')
const instead = ref('')
const log = ref<File>()

const { data: beginnings } = useAnswer(
  () => undefined,
  () => api.GET('/api/beginnings'),
)
const templates = computed(() => beginnings.value?.activities ?? [])
const activities = computed(() => site.plan?.activities ?? [])
watch(activities, (list) => list.some((a) => a.id === chosen.value) || (chosen.value = list[0]?.id ?? ''), {
  immediate: true,
})
watch(chosen, () => (problem.value = ''))
useInAddress(
  'activity',
  idText(chosen, () => activities.value.map((a) => a.id)),
  true,
  'an activity',
)
const activity = computed(() => activities.value.find((a) => a.id === chosen.value))
const { names } = useUses('activity', () => chosen.value)
const others = computed(() => {
  const rest = activities.value.filter((a) => a.id !== chosen.value)
  return [['', 'nothing'], ...rest.map((a) => [a.id, a.name] as const)] as const
})

function set(part: Partial<Activity>) {
  if (activity.value) site.change([{ setActivity: { activity: { ...activity.value, ...part } } }])
}

async function add(like: Activity) {
  const [id] = (await site.freeIds('activity', like.name)) ?? []
  if (!id) return
  site.change([{ setActivity: { activity: { ...like, id } } }])
  chosen.value = id
}

function addTemplate(id: string) {
  const template = templates.value.find((t) => t.id === id)
  if (template) void add(template)
}

function remove() {
  problem.value = ''
  const edit = { removeActivity: { activity: chosen.value, ...(instead.value && { instead: instead.value }) } }
  site.change([edit], undefined, (p) => (problem.value = inWords(p)))
}

/** Text of a log that is pasted instead of loaded, wherever nothing else is being written. */
useEventListener(document, 'paste', (event) => {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if ((event.target as HTMLElement).matches('input, textarea') || text.split('\n').length < 3) return
  event.preventDefault()
  log.value = new File([text], 'pasted log')
})

function done(id?: string) {
  log.value = undefined
  if (id) chosen.value = id
}
</script>

<template>
  <div class="activities">
    <section class="list" aria-label="Activities">
      <button
        v-for="a in activities"
        :key="a.id"
        type="button"
        class="entry"
        :class="{ here: a.id === chosen }"
        :aria-pressed="a.id === chosen"
        :data-activity="a.id"
        @click="chosen = a.id"
      >
        <b>{{ a.name }}</b> <span class="soft">{{ a.known }}</span>
      </button>
      <p v-if="!activities.length" class="soft">
        An <TermTip word="activity" /> says how often something happens, hour by hour, and how long it lasts. Start from
        one of the examples, or from an event log.
      </p>
      <ElDropdown trigger="click" placement="bottom-start" :persistent="false" @command="addTemplate">
        <button type="button" class="act quiet" data-test="template">Start from an example…</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="t in templates" :key="t.id" :command="t.id">{{ t.name }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <FilePick
        label="From an event log…"
        accept=".csv,.txt,.tsv,.xlsx"
        data-test="log-file"
        @pick="(file) => (log = file)"
      />
      <span class="soft">or paste its lines here</span>
    </section>
    <section v-if="activity" class="sheet" :aria-label="activity.name" tabindex="-1">
      <h2><TermTip word="activity">Activity</TermTip></h2>
      <div class="facts">
        <TextField label="Name" :value="activity.name" :maxlength="100" @change="(name) => name && set({ name })" />
        <ActivityFacts :activity="activity" @change="set" />
      </div>
      <ActivityRates :activity="activity" />
      <GroupsEditor :activity="activity" @change="(groups) => set({ groups })" />
      <p class="soft">
        {{
          names.length ? `In front of ${names.join(', ')}.` : 'Nothing goes by it: choose it for channels in the table.'
        }}
        <ActivityDoubt :activity="activity" />
      </p>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <div class="remove">
        <button type="button" class="plain-button link short" data-test="remove-activity" @click="remove">
          Remove this activity
        </button>
        <button type="button" class="plain-button link" @click="add({ ...activity, name: `${activity.name} (copy)` })">
          Duplicate
        </button>
        <span class="soft">{{ count(activity.blocks?.length ?? 0, 'time block') }}</span>
        <ChoiceField
          v-if="names.length"
          label="Where it is removed, replace with"
          :value="instead"
          :choices="others"
          @change="(v) => (instead = v)"
        />
      </div>
    </section>
    <LogImport v-if="log" :file="log" :into="activity" @done="done" />
  </div>
</template>

<style scoped>
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
  min-height: var(--row);
  align-items: center;
  padding: 0 9px;
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

.facts {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 4px 26px;
}

.remove {
  display: flex;
  flex-wrap: wrap;
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
