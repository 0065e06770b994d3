<script setup lang="ts">
import { ElInput, ElOption, ElSelect } from 'element-plus'
import { computed, ref, useId, watch } from 'vue'
import { useRoute } from 'vue-router'

import PlanGlance from '../glance/PlanGlance.vue'
import { ask } from '../api/ask'
import { api } from '../api/client'
import type { LostEvent } from '../api/types'
import { useSite } from '../site/useSite'
import { readTime } from '../time/clocktext'
import { isoDate, moment } from '../time/dates'
import DateField from '../ui/DateField.vue'
import SegmentChoice from '../ui/SegmentChoice.vue'
import MendLine from './MendLine.vue'

/** Somebody tells of an event that is missing, or of footage that should not be: where it was lost, what mends it. */
const site = useSite()
const id = useId()
const query = useRoute().query // a silence brings its channel, and a time within it
const since = query.since ? new Date(Date.parse(String(query.since)) + 3_600_000) : undefined
const zone = site.plan?.site.timeZone
const channel = ref(String(query.channel ?? ''))
const date = ref(isoDate(since ?? Date.now() - 86_400_000, zone))
const time = ref(since ? moment(since, zone).slice(-5) : '')
const seconds = ref('')
const way = ref<'missing' | 'unwanted'>('missing')
const answer = ref<LostEvent>()
const wrong = ref('')
const asking = ref(false)
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const walks = computed(() => cameras.value.find((c) => c.id === channel.value)?.scene?.walks ?? [])
const walk = ref('')
watch(channel, () => (walk.value = ''))
watch(cameras, (list) => (channel.value ||= list[0]?.id ?? ''), { immediate: true })
watch([channel, date, time, seconds, walk, way, () => site.stamp], () => (answer.value = undefined))
const ways = [
  ['missing', 'It is not there'],
  ['unwanted', 'It should not be there'],
] as const
const percent = (p: number) => (p < 0.01 ? 'below 1 %' : `${Math.round(100 * p)} %`)

async function look() {
  const clock = readTime(time.value)
  const lasted = seconds.value.trim() ? Number(seconds.value.replace(',', '.').replace(/\s*s$/, '')) : 0
  wrong.value = ''
  if (clock === undefined) wrong.value = 'A time is written as 16:20, or 4.20 pm.'
  else if (!(lasted >= 0 && lasted <= 86_400)) wrong.value = 'How long it lasted is a number of seconds, or left empty.'
  if (wrong.value || clock === undefined) return
  asking.value = true
  const body = {
    channel: channel.value,
    date: date.value,
    clock,
    seconds: lasted,
    walk: walk.value,
    unwanted: way.value === 'unwanted',
    found: true,
  }
  const told = await ask(api.POST('/api/plans/{id}/measured/missed', { params: site.here, body }))
  asking.value = false
  answer.value = told.data
  wrong.value = told.problem
}
</script>

<template>
  <div class="missed">
    <h1 class="title">Missed</h1>
    <form class="sheet" aria-label="What somebody tells of" @submit.prevent="look">
      <SegmentChoice v-model="way" label="What is wrong with it" :ways="ways" />
      <div class="fields">
        <div>
          <label :for="`${id}-channel`">Channel</label>
          <ElSelect :id="`${id}-channel`" v-model="channel" filterable size="small" data-choice="missed-channel">
            <ElOption v-for="c in cameras" :key="c.id" :value="c.id" :label="`${c.number} ${c.name}`" />
          </ElSelect>
        </div>
        <div>
          <span aria-hidden="true">Date</span>
          <DateField label="Date" :value="date" @change="(d) => (date = d)" />
        </div>
        <div>
          <label :for="`${id}-time`">Time there</label>
          <ElInput
            :id="`${id}-time`"
            v-model="time"
            size="small"
            autocomplete="off"
            placeholder="16:20"
            data-field="missed-time"
          />
        </div>
        <div v-if="way === 'missing'">
          <label :for="`${id}-seconds`">It lasted, s</label>
          <ElInput
            :id="`${id}-seconds`"
            v-model="seconds"
            size="small"
            autocomplete="off"
            placeholder="not known"
            data-field="missed-seconds"
          />
        </div>
        <div v-if="way === 'missing' && walks.length">
          <label :for="`${id}-walk`">What, and which way</label>
          <ElSelect :id="`${id}-walk`" v-model="walk" size="small" :empty-values="[undefined]">
            <ElOption value="" label="nobody knows" />
            <ElOption v-for="w in walks" :key="w.id" :value="w.id" :label="w.name" />
          </ElSelect>
        </div>
        <button type="submit" class="act" :disabled="asking" data-test="missed-ask">
          {{ asking ? 'Looking…' : way === 'missing' ? 'Where was it lost' : 'What is it' }}
        </button>
      </div>
      <p v-if="wrong" class="short" role="alert">{{ wrong }}</p>
    </form>
    <section v-if="answer" aria-live="polite" data-test="lost">
      <h2>{{ way === 'missing' ? 'Most likely lost' : 'Most likely' }}, {{ answer.when }}</h2>
      <p v-if="!answer.gates.length" class="soft">By the plan nothing moves before this channel then.</p>
      <ol>
        <li v-for="(g, k) in answer.gates" :key="k">
          <p>
            <b v-if="k === 0">{{ g.words }}</b><template v-else>{{ g.words }}</template>
            <span class="soft chance">{{ percent(g.chance) }}</span>
          </p>
          <MendLine v-for="m in g.mends" :key="m.words" :mend="m" />
          <p v-if="g.gate === 'overwritten'">
            <RouterLink :to="{ name: 'storage' }">What would keep it longer</RouterLink>
          </p>
        </li>
      </ol>
      <p v-if="answer.odds" data-test="missed-odds">
        In {{ answer.odds.missed }} of {{ answer.odds.rehearsals }} rehearsals of that day nothing is on disk then,
        whatever happens there.
      </p>
      <p class="soft">At the plan’s figures, corrected by what was found.</p>
    </section>
    <PlanGlance class="plan" />
  </div>
</template>

<style scoped>
.missed {
  display: flex;
  flex-direction: column;
  overflow: auto;
  padding: 12px 18px 30px;
}

/* What stands in the page stands as it is; the plan has the rest. */
.missed > :not(.plan) {
  flex: none;
}

.plan {
  padding: 16px 0 0;
}

form {
  padding: 12px 14px;
  max-width: 860px;
}

.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 10px 14px;
  align-items: end;
  margin-top: 10px;
}

.fields > div {
  display: grid;
  gap: 3px;
  width: var(--word);
}

ol {
  padding-left: 20px;
  max-width: 860px;
}

li {
  margin: 8px 0;
}

p {
  margin: 3px 0;
}

h2 {
  margin-top: 18px;
}

.chance {
  margin-left: 8px;
}
</style>
