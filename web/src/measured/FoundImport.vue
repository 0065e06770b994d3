<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed, ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api, fileBody } from '../api/client'
import { uploading } from '../api/uploading'
import type { LineAs, ReadFound } from '../api/types'
import { useSite } from '../site/useSite'
import LineKinds from '../forms/LineKinds.vue'
import ChoiceField from '../ui/ChoiceField.vue'
import { count } from '../ui/figures'
import TextField from '../ui/TextField.vue'
import { dateWords } from '../time/dates'

/** Shows what a file says was found, before it counts. */
const props = defineProps<{ file: File }>()
const emit = defineEmits<{ done: [kept: boolean] }>()
const site = useSite()
const as = ref<ReadFound['as'] | ''>('')
const zone = ref(site.plan!.site.timeZone)
const zones = Intl.supportedValuesOf('timeZone')
const whom = ref<Record<string, string>>({}) // texts of the file and whom they mean
const kinds = ref<Record<string, LineAs>>({})
const keeping = ref(false)
const refused = ref('')
const sent = ref(0) // share of the file that the server has

const query = computed(() => ({
  as: as.value,
  zone: zone.value,
  ...(Object.keys(whom.value).length ? { channels: JSON.stringify(whom.value) } : {}),
  ...(Object.keys(kinds.value).length ? { kinds: JSON.stringify(kinds.value) } : {}),
}))
const {
  data: found,
  failure,
  asking,
} = useAnswer(
  () => [as.value, zone.value, whom.value, kinds.value],
  () =>
    api.POST('/api/plans/{id}/measured/read', {
      params: { ...site.here, query: query.value },
      ...fileBody(props.file),
      fetch: uploading((share) => (sent.value = share)),
    }),
  { keep: true },
)
const kindsOf = [
  ['triggers', 'event log'],
  ['recordings', 'recordings'],
  ['rates', 'bitrates'],
  ['oldest', 'oldest footage'],
  ['settings', 'settings'],
] as const
const channels = computed(() => [
  ['', 'nobody: left out'] as const,
  ...(site.plan?.channels ?? []).map((c) => [c.id, `${c.number} ${c.name}`] as const),
])
const unknown = computed(() => (found.value?.channels ?? []).filter((c) => !c.channel).length)
const asks = computed(() => !!found.value?.asks?.includes('kind'))

async function keep() {
  keeping.value = true
  const params = { ...site.here, header: {}, query: { ...query.value, as: found.value!.as, name: props.file.name } }
  const told = await ask(api.POST('/api/plans/{id}/measured', { params, ...fileBody(props.file) }))
  keeping.value = false
  refused.value = told.problem
  if (!told.data) return
  site.handed++
  emit('done', true)
}
</script>

<template>
  <ElDialog
    :model-value="true"
    :title="`What was found: ${file.name}`"
    width="720"
    data-test="found-import"
    @close="emit('done', false)"
  >
    <p v-if="failure" class="short" role="alert">{{ file.name }}: {{ failure }}</p>
    <p v-if="asking && !found" class="soft" role="status">
      {{ sent < 1 ? 'Sending' : 'Reading' }} {{ file.name }}…
      <progress :value="sent < 1 ? sent : undefined" aria-label="How far it is" />
    </p>
    <div class="choices">
      <ChoiceField
        label="It is"
        :value="found?.as ?? (as || 'triggers')"
        :choices="kindsOf"
        @change="(v) => (as = v)"
      />
      <TextField label="Times are those of" :value="zone" :choices="zones" @change="(z) => (zone = z)" />
    </div>
    <template v-if="found && !failure">
      <p data-test="found-span">
        <template v-if="found.from && found.to">{{ dateWords(found.from) }} to {{ dateWords(found.to) }}. </template>
        <template v-if="found.layout">Times are written {{ found.layout }}. </template>
        <template v-if="found.twice">{{ count(found.twice, 'line') }} stood there twice, and count once. </template>
        <template v-if="found.unpaired"
          >{{ count(found.unpaired, 'line') }} start or stop what has no other end.
        </template>
      </p>
      <p v-for="n in found.notes" :key="n" class="soft">{{ n }}</p>
      <LineKinds :kinds="found.kinds" :asks="asks" data-test="found-kinds" @change="(k) => (kinds = k)" />
      <fieldset data-test="found-channels">
        <legend>{{ unknown ? `Whose is it? ${count(unknown, 'text')} of no channel` : 'Whose it is' }}</legend>
        <div class="many">
          <div v-for="c in found.channels" :key="c.text" class="whose">
            <ChoiceField
              :label="c.text || '(no name)'"
              :value="c.channel"
              :choices="channels"
              @change="(id) => (whom = { ...whom, [c.text]: id })"
            />
            <span class="soft">{{ c.says }}</span>
          </div>
        </div>
      </fieldset>
      <details v-if="found.leftOut" open>
        <summary class="short">{{ count(found.leftOut, 'line') }} left out</summary>
        <ul>
          <li v-for="b in found.bad" :key="b.line">line {{ b.line }}: {{ b.reason }}: “{{ b.text }}”</li>
        </ul>
      </details>
    </template>
    <p v-if="refused" class="short" role="alert">Nothing was kept. {{ refused }}</p>
    <template #footer>
      <ElButton @click="emit('done', false)">Cancel</ElButton>
      <ElButton
        type="primary"
        :disabled="!found || !!failure || asks || keeping || asking"
        data-test="keep-found"
        @click="keep"
        >{{ keeping ? 'Keeping it…' : 'Let it count' }}</ElButton
      >
    </template>
  </ElDialog>
</template>

<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 8px 14px;
}

p {
  margin: 6px 0;
}

fieldset {
  margin: 8px 0;
  padding: 4px 10px 8px;
  border: 1px solid var(--rule);
  border-radius: 6px;
}

.many {
  max-height: 260px;
  overflow: auto;
}

.whose {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 12px;
  align-items: end;
  padding: 3px 0;
}

ul {
  margin: 4px 0;
  padding-left: 18px;
}
</style>
