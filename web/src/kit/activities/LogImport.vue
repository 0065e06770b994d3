<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed, ref, watch } from 'vue'

import { inWords } from '../../api/client'
import type { Activity, LineAs, ReadLog } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import DateField from '../../ui/DateField.vue'
import { count, three } from '../../ui/figures'
import TextField from '../../ui/TextField.vue'
import { fresh } from '../../duties/useDutyUse'
import RateCurve from './RateCurve.vue'

/** Shows what an event log says, before it becomes an activity. */
const props = defineProps<{ file: File; into?: Activity }>()
const emit = defineEmits<{ done: [activity?: string] }>()
const site = useSite()
const found = ref<ReadLog>()
const failure = ref('')
const columns = ref<{ start?: number; end?: number; channel?: number; kind?: number }>({})
const zone = ref(site.plan!.site.timeZone)
const zones = Intl.supportedValuesOf('timeZone')
const kept = ref({ from: '', to: '' }) // when the log was kept, where it says more than its events
const keepAs = ref<'new' | 'old'>(props.into ? 'old' : 'new')
const name = ref('From a log')
const pick = ref('') // whose events, of several channels
const kinds = ref<Record<string, LineAs>>({})
const each = ref(false) // whether every channel becomes an activity

let asked = 0
watch(
  [columns, zone, kept, pick, kinds],
  async () => {
    const mine = ++asked
    failure.value = ''
    const query = new URLSearchParams({ zone: zone.value })
    for (const [key, value] of Object.entries({ ...columns.value, ...kept.value, pick: pick.value })) if (value !== undefined && value !== '') query.set(key, String(value))
    if (Object.keys(kinds.value).length) query.set('as', JSON.stringify(kinds.value))
    try {
      const response = await fetch(`/api/plans/${site.planId}/log/read?${query}`, { method: 'POST', headers: { 'Content-Type': 'application/octet-stream' }, body: props.file })
      const answer = await response.json()
      if (mine !== asked) return
      if (response.ok) found.value = answer
      else failure.value = inWords(answer)
    } catch {
      if (mine === asked) failure.value = 'The server does not answer.'
    }
  },
  { immediate: true },
)

const asks = (what: ReadLog['asks'][number]) => found.value?.asks?.includes(what)
const meanings = [['start', 'an event starts'], ['stop', 'it stops'], ['event', 'an event by itself'], ['other', 'nothing of interest']] as const
const say = (text: string, as: LineAs) => (kinds.value = { ...Object.fromEntries(found.value!.kinds.map((k) => [k.text, k.as])), [text]: as })
const confirmKinds = () => (kinds.value = Object.fromEntries(found.value!.kinds.map((k) => [k.text, k.as])))
const every = computed(() => (found.value?.channels ?? []).filter((c) => c.activity))

/** What keeps it from being accepted. */
const open = computed(() => {
  if (asks('kind')) return 'Say what the kinds of lines mean.'
  if (asks('channel') && !each.value) return 'Say whose events are wanted.'
  return ''
})

const choices = computed(() => (found.value?.columns ?? []).map((c, i) => [i, `${i + 1}: ${c}`] as const))
const date = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'medium', timeZone: site.plan!.site.timeZone })
/** A moment as the date it is at the site. */
const dateOf = (moment: string, back = 0) => new Intl.DateTimeFormat('sv-SE', { timeZone: zone.value }).format(new Date(Date.parse(moment) - back))

function accept() {
  if (each.value) {
    const taken = new Map((site.plan!.activities ?? []).map((x) => [x.id, x]))
    const edits = every.value.map((c) => {
      const activity = { ...c.activity!, id: fresh(c.name, taken), name: c.name }
      taken.set(activity.id, activity)
      return { setActivity: { activity } }
    })
    site.change(edits)
    emit('done', edits[0]?.setActivity.activity.id)
    return
  }
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
        <ChoiceField label="Events begin in" :value="found.start" :choices="choices" @change="(start) => (columns = { ...columns, start, end: found!.end })" />
        <ChoiceField :label="found.lengths ? 'How long they last is in' : 'They end in'" :value="found.end" :choices="[[-1, 'no column'] as const, ...choices]" @change="(end) => (columns = { ...columns, start: found!.start, end })" />
        <ChoiceField label="Whose event it is" :value="found.channel" :choices="[[-1, 'no column tells'] as const, ...choices]" @change="(channel) => { pick = ''; columns = { ...columns, channel } }" />
        <ChoiceField label="What a line means" :value="found.kind" :choices="[[-1, 'each is an event'] as const, ...choices]" @change="(kind) => { kinds = {}; columns = { ...columns, kind } }" />
        <TextField label="Times are those of" :value="zone" :choices="zones" @change="(z) => (zone = z)" />
      </div>
      <p class="kept">
        The log was kept from <span class="date" data-test="log-from"><DateField label="First date of the log" :value="dateOf(found.from)" :refuse="(date) => (date > dateOf(found!.to, 1000) ? 'after its last date' : '')" @change="(from) => (kept = { ...kept, from })" /></span>
        to <span class="date" data-test="log-to"><DateField label="Last date of the log" :value="dateOf(found.to, 1000)" :refuse="(date) => (date < dateOf(found!.from) ? 'before its first date' : '')" @change="(to) => (kept = { ...kept, to })" /></span>
        <span class="soft">Days without an event count too.</span>
      </p>
      <fieldset v-if="found.kinds.length" data-test="log-kinds">
        <legend :class="{ short: asks('kind') }">{{ asks('kind') ? 'What do these lines mean?' : 'Lines mean' }}</legend>
        <ChoiceField v-for="k in found.kinds.slice(0, 12)" :key="k.text" :label="`“${k.text}”, ${count(k.lines, 'line')}`" :value="k.as" :choices="meanings" @change="(as) => say(k.text, as)" />
        <button v-if="asks('kind')" type="button" class="act quiet" data-test="kinds-right" @click="confirmKinds">That is right</button>
      </fieldset>
      <fieldset v-if="found.channels.length > 1" data-test="log-channels">
        <legend :class="{ short: asks('channel') && !each }">Whose events?</legend>
        <label v-if="every.length > 1" class="whose"><input v-model="each" type="radio" name="whose" :value="true" @change="pick = ''" /> each of the {{ every.length }} becomes an activity</label>
        <div class="many">
          <label v-for="c in found.channels" :key="c.name" class="whose">
            <input type="radio" name="whose" :checked="pick === c.name" @change="((pick = c.name), (each = false), (name = c.name))" /> {{ c.name || '(no name)' }} <span class="soft">{{ count(c.events, 'event') }}, {{ three(c.perDay) }} a day</span>
          </label>
        </div>
      </fieldset>
      <table class="first" data-test="log-sample">
        <caption class="soft">Times are written {{ found.layout }}. The first events as they were understood:</caption>
        <tbody>
          <tr v-for="(s, i) in found.sample.slice(0, 5)" :key="i"><td>{{ s.channel }}</td><td>{{ date.format(new Date(s.start)) }}</td><td>{{ s.seconds >= 0 ? `${three(s.seconds)} s` : 'no end' }}</td></tr>
        </tbody>
      </table>
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
      <div v-if="!each" class="choices">
        <ChoiceField v-if="into" label="Keep it as" :value="keepAs" :choices="[['old', into.name], ['new', 'a new activity']] as const" @change="(v) => (keepAs = v)" />
        <TextField v-if="keepAs === 'new'" label="Called" :value="name" :maxlength="100" @change="(v) => (name = v)" />
      </div>
    </template>
    <template #footer>
      <span v-if="open && found && !failure" class="soft open">{{ open }}</span>
      <ElButton @click="emit('done')">Cancel</ElButton>
      <ElButton type="primary" :disabled="!found || !!failure || !!open" data-test="accept-log" @click="accept">Use these values</ElButton>
    </template>
  </ElDialog>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 22px;
}

.date {
  display: inline-block;
  width: 120px;
}

p {
  margin: 6px 0;
}

fieldset {
  margin: 6px 0;
  padding: 4px 10px 6px;
  border: 1px solid var(--rule);
  border-radius: 6px;
}

.many {
  max-height: 150px;
  overflow: auto;
}

.whose {
  display: flex;
  gap: 7px;
  align-items: baseline;
  padding: 2px 0;
}

.first {
  border-collapse: collapse;
}

.first caption {
  text-align: left;
  white-space: nowrap;
}

.first td {
  padding: 1px 14px 1px 0;
}

.open {
  margin-right: 12px;
}
</style>
