<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { inWords } from '../../api/client'
import type { Activity, ReadLog } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { count, three } from '../../ui/figures'
import TextField from '../../ui/TextField.vue'
import { fresh } from '../../week/useDutyUse'
import RateCurve from './RateCurve.vue'

/** Shows what an event log says, before it becomes an activity. */
const props = defineProps<{ file: File; into?: Activity }>()
const emit = defineEmits<{ done: [activity?: string] }>()
const site = useSite()
const found = ref<ReadLog>()
const failure = ref('')
const columns = ref<{ start: number; end: number }>()
const zone = ref(site.plan!.site.timeZone)
const zones = Intl.supportedValuesOf('timeZone')
const kept = ref({ from: '', to: '' }) // when the log was kept, where it says more than its events
const keepAs = ref<'new' | 'old'>(props.into ? 'old' : 'new')
const name = ref('From a log')

watch(
  [columns, zone, kept],
  async () => {
    failure.value = ''
    const query = new URLSearchParams({ zone: zone.value, ...(columns.value && { start: String(columns.value.start), end: String(columns.value.end) }), ...(kept.value.from && { from: kept.value.from }), ...(kept.value.to && { to: kept.value.to }) })
    try {
      const response = await fetch(`/api/sites/${encodeURIComponent(site.id)}/log/read?${query}`, { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: props.file })
      const answer = await response.json()
      if (response.ok) found.value = answer
      else failure.value = inWords(answer)
    } catch {
      failure.value = 'The server does not answer.'
    }
  },
  { immediate: true },
)

const choices = computed(() => (found.value?.columns ?? []).map((c, i) => [i, `${i + 1}: ${c}`] as const))
const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'medium', timeZone: site.plan!.site.timeZone })
/** A moment as the date it is at the site. */
const dateOf = (moment: string, back = 0) => new Intl.DateTimeFormat('sv-SE', { timeZone: zone.value }).format(new Date(Date.parse(moment) - back))

function accept() {
  const a = found.value!.activity
  const old = keepAs.value === 'old' ? props.into : undefined
  const id = old?.id ?? fresh(name.value, new Map((site.plan!.activities ?? []).map((x) => [x.id, x])))
  site.change([{ setActivity: { activity: { ...a, id, name: old?.name ?? (name.value || 'From a log') } } }])
  emit('done', id)
}
</script>

<template>
  <ElDialog :model-value="true" :title="`Events from ${file.name}`" width="720" data-test="log-import" @close="emit('done')">
    <p v-if="failure" class="short" role="alert">{{ failure }} Nothing was changed.</p>
    <template v-if="found">
      <div class="choices">
        <ChoiceField label="Events begin in" :value="found.start" :choices="choices" @change="(start) => (columns = { start, end: found!.end })" />
        <ChoiceField :label="found.lengths ? 'How long they last is in' : 'They end in'" :value="found.end" :choices="[[-1, 'no column'] as const, ...choices]" @change="(end) => (columns = { start: found!.start, end })" />
        <TextField label="Times are those of" :value="zone" :choices="zones" @change="(z) => (zone = z)" />
      </div>
      <p class="kept">
        The log was kept from <input type="date" aria-label="First date of the log" :value="dateOf(found.from)" data-test="log-from" @change="kept = { ...kept, from: ($event.target as HTMLInputElement).value }" />
        to <input type="date" aria-label="Last date of the log" :value="dateOf(found.to, 1000)" data-test="log-to" @change="kept = { ...kept, to: ($event.target as HTMLInputElement).value }" />
        <span class="soft">Days without an event count too.</span>
      </p>
      <p class="soft">Times are written {{ found.layout }}. The first: <template v-for="(s, i) in found.sample.slice(0, 3)" :key="i">{{ i ? '; ' : '' }}{{ date.format(new Date(s.start)) }}{{ s.seconds >= 0 ? ` for ${three(s.seconds)} s` : '' }}</template>.</p>
      <p data-test="log-says">
        <b>{{ found.events }} events</b> over {{ three(found.weeks) }} weeks:
        <b>{{ three(found.perDay) }} a day</b> (±{{ three(found.ratePercent) }} %), lasting <b>{{ three(found.activity.meanSeconds) }} s</b><template v-if="found.meanPercent"> (±{{ three(found.meanPercent) }} %)</template>.
        Hours taken to be alike: {{ found.pattern }}.
      </p>
      <RateCurve :activity="found.activity" reach="this day" readonly :height="130" />
      <p v-for="n in found.notes" :key="n" class="soft">{{ n }}</p>
      <details v-if="found.leftOut">
        <summary class="short">{{ count(found.leftOut, 'line') }} left out</summary>
        <p v-for="b in found.bad" :key="b.line" class="soft">Line {{ b.line }}, {{ b.column }}: “{{ b.text }}” — {{ b.reason }}</p>
      </details>
      <div class="choices">
        <ChoiceField v-if="into" label="Keep it as" :value="keepAs" :choices="[['old', into.name], ['new', 'a new activity']] as const" @change="(v) => (keepAs = v)" />
        <TextField v-if="keepAs === 'new'" label="Called" :value="name" :maxlength="100" @change="(v) => (name = v)" />
      </div>
    </template>
    <template #footer>
      <ElButton @click="emit('done')">Leave it</ElButton>
      <ElButton type="primary" :disabled="!found || !!failure" data-test="accept-log" @click="accept">Make it measured</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 22px;
}

.kept input {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 1px 5px;
}

p {
  margin: 6px 0;
}
</style>
