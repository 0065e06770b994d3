<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed, ref } from 'vue'

import { useAnswer } from '../../api/ask'
import { api, fileBody } from '../../api/client'
import type { Activity, LineAs, ReadLog } from '../../api/types'
import { useSite } from '../../site/useSite'
import LineKinds from '../../forms/LineKinds.vue'
import ChoiceField from '../../ui/ChoiceField.vue'
import DateField from '../../ui/DateField.vue'
import TextField from '../../ui/TextField.vue'
import LogChannels from './LogChannels.vue'
import LogSays from './LogSays.vue'
import { isoDate } from '../../time/dates'

/** Shows what an event log says, before it becomes an activity. */
const props = defineProps<{ file: File; into?: Activity }>()
const emit = defineEmits<{ done: [activity?: string] }>()
const site = useSite()
const columns = ref<{ start?: number; end?: number; channel?: number; kind?: number }>({})
const zone = ref(site.plan!.site.timeZone)
const zones = Intl.supportedValuesOf('timeZone')
const kept = ref({ from: '', to: '' }) // when the log was kept, where it says more than its events
const keepAs = ref<'new' | 'old'>(props.into ? 'old' : 'new')
const name = ref('From a log')
const pick = ref('') // whose events, of several channels
const kinds = ref<Record<string, LineAs>>({})
const each = ref(false) // whether every channel becomes an activity

/** Without what is empty. */
const given = (texts: Record<string, string>) => Object.fromEntries(Object.entries(texts).filter(([, text]) => text))

const { data: found, failure } = useAnswer(
  () => [columns.value, zone.value, kept.value, pick.value, kinds.value],
  () => {
    const said = Object.keys(kinds.value).length ? { as: JSON.stringify(kinds.value) } : {}
    const query = { ...columns.value, ...given(kept.value), ...given({ pick: pick.value, zone: zone.value }), ...said }
    return api.POST('/api/plans/{id}/log/read', { params: { ...site.here, query }, ...fileBody(props.file) })
  },
  { keep: true },
)

const asks = (what: ReadLog['asks'][number]) => found.value?.asks?.includes(what)
const every = computed(() => (found.value?.channels ?? []).filter((c) => c.activity))

/** What keeps it from being accepted. */
const open = computed(() => {
  if (asks('kind')) return 'Say what the kinds of lines mean.'
  if (asks('channel') && !each.value) return 'Say whose events are wanted.'
  return ''
})

const choices = computed(() => (found.value?.columns ?? []).map((c, i) => [i, `${i + 1}: ${c}`] as const))
/** A moment as the date it is at the site. */
const dateOf = (moment: string, back = 0) => isoDate(Date.parse(moment) - back, zone.value)

async function accept() {
  if (each.value) {
    const ids = await site.freeIds('activity', ...every.value.map((c) => c.name))
    if (!ids) return
    site.change(
      every.value.map((c, i) => ({ setActivity: { activity: { ...c.activity!, id: ids[i]!, name: c.name } } })),
    )
    emit('done', ids[0])
    return
  }
  const old = keepAs.value === 'old' ? props.into : undefined
  const called = old?.name ?? (name.value || 'From a log')
  const id = old?.id ?? (await site.freeIds('activity', called))?.[0]
  if (!id) return
  site.change([{ setActivity: { activity: { ...found.value!.activity, id, name: called } } }])
  emit('done', id)
}
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="`Events from ${file.name}`"
    width="720"
    data-test="log-import"
    @close="emit('done')"
  >
    <p v-if="failure" class="short" role="alert">{{ failure }} Nothing was changed.</p>
    <template v-if="found">
      <div class="choices">
        <ChoiceField
          label="Events begin in"
          :value="found.start"
          :choices="choices"
          @change="(start) => (columns = { ...columns, start, end: found!.end })"
        />
        <ChoiceField
          :label="found.lengths ? 'How long they last is in' : 'They end in'"
          :value="found.end"
          :choices="[[-1, 'no column'] as const, ...choices]"
          @change="(end) => (columns = { ...columns, start: found!.start, end })"
        />
        <ChoiceField
          label="Whose event it is"
          :value="found.channel"
          :choices="[[-1, 'no column tells'] as const, ...choices]"
          @change="
            (channel) => {
              pick = ''
              columns = { ...columns, channel }
            }
          "
        />
        <ChoiceField
          label="What a line means"
          :value="found.kind"
          :choices="[[-1, 'each is an event'] as const, ...choices]"
          @change="
            (kind) => {
              kinds = {}
              columns = { ...columns, kind }
            }
          "
        />
        <TextField label="Times are those of" :value="zone" :choices="zones" @change="(z) => (zone = z)" />
      </div>
      <p class="kept">
        The log runs from
        <span class="date" data-test="log-from"
          ><DateField
            label="First date of the log"
            :value="dateOf(found.from)"
            :refuse="(date) => (date > dateOf(found!.to, 1000) ? 'after its last date' : '')"
            @change="(from) => (kept = { ...kept, from })"
        /></span>
        to
        <span class="date" data-test="log-to"
          ><DateField
            label="Last date of the log"
            :value="dateOf(found.to, 1000)"
            :refuse="(date) => (date < dateOf(found!.from) ? 'before its first date' : '')"
            @change="(to) => (kept = { ...kept, to })"
        /></span>
        <span class="soft">Days without an event count too.</span>
      </p>
      <LineKinds :kinds="found.kinds" :asks="!!asks('kind')" data-test="log-kinds" @change="(k) => (kinds = k)" />
      <LogChannels
        v-if="found.channels.length > 1"
        v-model:pick="pick"
        v-model:each="each"
        :channels="found.channels"
        :open="!!asks('channel')"
        @name="(n) => (name = n)"
      />
      <LogSays :found="found" />
      <div v-if="!each" class="choices">
        <ChoiceField
          v-if="into"
          label="Save it as"
          :value="keepAs"
          :choices="
            [
              ['old', into.name],
              ['new', 'a new activity'],
            ] as const
          "
          @change="(v) => (keepAs = v)"
        />
        <TextField v-if="keepAs === 'new'" label="Called" :value="name" :maxlength="100" @change="(v) => (name = v)" />
      </div>
    </template>
    <template #footer>
      <span v-if="open && found && !failure" class="soft open">{{ open }}</span>
      <ElButton @click="emit('done')">Cancel</ElButton>
      <ElButton type="primary" :disabled="!found || !!failure || !!open" data-test="accept-log" @click="accept"
        >Use these values</ElButton
      >
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

.open {
  margin-right: 12px;
}
</style>
