<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { choices } from '../../api/format'
import type { AlarmInput } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { change as changed, count, days, three } from '../../ui/figures'
import TextField from '../../ui/TextField.vue'
import { useEdits } from '../parts/useEdits'

/** A contact: what it is wired to, how often it opens, and what it would do the wrong way round. */
const { input } = defineProps<{ input: AlarmInput }>()
const site = useSite()
const { problem, change } = useEdits()
const recorders = computed(() => (site.plan?.recorders ?? []).map((r) => [r.id, r.name] as const))
const guarded = computed(() => [['', 'no recorder'] as const, ...recorders.value])
const activities = computed(() => (site.plan?.activities ?? []).map((a) => [a.id, a.name] as const))
const set = (part: Partial<AlarmInput>) => change({ setAlarmInput: { alarmInput: { ...input, ...part } } })
const { data: wrong } = useAnswer(
  () => [site.stamp, input.id],
  () => api.GET('/api/plans/{id}/inputs/{input}/wrong', { params: { path: { id: site.planId, input: input.id } } }),
  { debounce: 100, keep: true },
)
</script>

<template>
  <div class="form" :data-input="input.id">
    <TextField label="Alarm input" :value="input.name" :maxlength="100" @change="(name) => name && set({ name })" />
    <ChoiceField
      label="Wired to"
      :value="input.recorder"
      :choices="recorders"
      @change="(recorder) => set({ recorder })"
    />
    <ChoiceField
      label="Happens"
      :value="input.activity"
      :choices="activities"
      @change="(activity) => set({ activity })"
    />
    <p class="soft">
      <RouterLink :to="{ name: 'kit', params: { part: 'activities' } }">How often that is, in Kit</RouterLink>
    </p>
    <ChoiceField
      label="Contact"
      :value="input.contact"
      :choices="choices.contacts.value"
      @change="(contact) => set({ contact })"
    />
    <ChoiceField
      label="Watches the housing of"
      :value="input.guards ?? ''"
      :choices="guarded"
      @change="(guards) => set({ guards: guards || undefined })"
    />
    <p v-if="wrong?.channels?.length" data-test="wrong-way">
      Set the wrong way round it would be in alarm for ever and keep
      {{ count(wrong.channels.length, 'channel') }} recording:
      <b>{{ changed(wrong.moreGigabytesPerDay) || '+0' }} GB a day</b>,
      {{ days(wrong.keptDays).replace(' ', '\u00a0') }} kept rather than
      {{ wrong.keptDaysNow == null ? 'for ever' : three(wrong.keptDaysNow) }}.
    </p>
    <p v-else-if="wrong" class="soft">It records nothing: set the wrong way round it would cost no disk.</p>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <button
      type="button"
      class="plain-button link short"
      @click="change({ removeAlarmInput: { alarmInput: input.id } })"
    >
      Remove this input, with its ties
    </button>
  </div>
</template>

<style scoped>
p {
  margin: 4px 0;
}
</style>
