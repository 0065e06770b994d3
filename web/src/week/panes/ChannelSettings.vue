<script setup lang="ts">
import { computed } from 'vue'

import type { Channel } from '../../api/types'
import FindingList from '../../findings/FindingList.vue'
import { channelsOf } from '../../findings/useFindings'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { count, gigabytes, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import { useHand } from '../../hand/useHand'
import CopyWeek from '../copying/CopyWeek.vue'
import ChannelRates from '../../forms/ChannelRates.vue'

const site = useSite()
const hand = useHand()

const channels = computed(() => hand.selection.map((id) => site.channels.get(id)!).filter((c) => !c.noCamera))
const ids = computed(() => channels.value.map((c) => c.id))
const first = computed(() => channels.value[0])
const own = 'own'

/** A value of the channels selected: of the first, and whether the others differ. */
function of<T>(get: (c: Channel) => T) {
  const values = channels.value.map(get)
  return { value: values[0], mixed: values.some((v) => v !== values[0]) }
}
const times = computed(() => ({
  pre: of((c) => c.preSeconds ?? 0),
  post: of((c) => c.postSeconds ?? 0),
  alarmPre: of((c) => c.alarmPreSeconds),
  alarmPost: of((c) => c.alarmPostSeconds),
  atLeast: of((c) => c.keep?.atLeastDays),
}))
const findings = computed(() =>
  site.findings.filter((f) => !f.accepted && channelsOf(f).some((id) => ids.value.includes(id))),
)
const figures = computed(() => (first.value ? site.figures.get(first.value.id) : undefined))
const weeks = computed(() => [
  ...(typeof first.value?.week === 'string' ? [] : ([[own, 'its own']] as const)),
  ...(site.plan?.weeks ?? []).map((w) => [w.id, w.name] as const),
])

/** Whether an alarm, or another cause that counts as one, records any of them. */
const alarmed = computed(() =>
  (site.plan?.effects ?? []).some(
    (e) => !e.when.motion && !e.when.button && e.record?.some((id) => ids.value.includes(id)),
  ),
)

/** Sets the seconds kept around an alarm; 0 means as for motion. */
function setAlarm(column: 'alarmPre' | 'alarmPost', seconds: number) {
  site.change([
    {
      setCells: {
        columns: [column],
        rows: ids.value.map((channel) => ({ channel, values: [seconds ? String(seconds) : ''] })),
      },
    },
  ])
}

function keep(atLeastDays: number) {
  // Each channel keeps its own other limits.
  site.change(
    channels.value.map((c) => ({
      setKeep: { channels: [c.id], keep: { ...c.keep, atLeastDays: atLeastDays || undefined } },
    })),
  )
}

function follow(week: string) {
  if (week !== own) site.change([{ followWeek: { channels: ids.value, week } }])
}
</script>

<template>
  <section v-if="first" aria-label="Channel">
    <h2>{{ channels.length === 1 ? `${first.number} ${first.name}` : count(channels.length, 'channel') }}</h2>
    <p v-if="channels.length === 1 && figures" class="soft facts">
      {{ gigabytes(figures.gigabytesPerDay) }} a day · written {{ three(figures.writtenPercent) }} % of the time ·
      {{ three(figures.evidence.eventsPerDay) }} wanted events a day: {{ three(figures.evidence.fullPerDay) }} at full
      quality, {{ three(figures.evidence.lowPerDay) }} at lower quality,
      {{ three(figures.evidence.missedPerDay) }} missed
    </p>
    <p v-else class="soft facts">What you set here is set on all of them.</p>
    <NumberField
      label="Pre-event"
      unit="s"
      :value="times.pre.value"
      :mixed="times.pre.mixed"
      member="channels.preSeconds"
      data-field="pre"
      @change="(v) => site.change([{ setTimes: { channels: ids, preSeconds: v } }])"
    />
    <NumberField
      label="Post-event"
      unit="s"
      :value="times.post.value"
      :mixed="times.post.mixed"
      member="channels.postSeconds"
      data-field="post"
      @change="(v) => site.change([{ setTimes: { channels: ids, postSeconds: v } }])"
    />
    <template v-if="alarmed">
      <NumberField
        label="Pre-event, alarms"
        none="as motion"
        unit="s"
        :value="times.alarmPre.value"
        :mixed="times.alarmPre.mixed"
        member="channels.alarmPreSeconds"
        data-field="alarm-pre"
        @change="(v) => setAlarm('alarmPre', v)"
      />
      <NumberField
        label="Post-event, alarms"
        none="as motion"
        unit="s"
        :value="times.alarmPost.value"
        :mixed="times.alarmPost.mixed"
        member="channels.alarmPostSeconds"
        data-field="alarm-post"
        @change="(v) => setAlarm('alarmPost', v)"
      />
    </template>
    <NumberField
      label="Keep at least"
      none="none"
      unit="days"
      :value="times.atLeast.value"
      :mixed="times.atLeast.mixed"
      member="channels.keep.atLeastDays"
      data-field="keep"
      @change="keep"
    />
    <ChoiceField
      v-if="channels.length === 1 && weeks.length"
      label="Week"
      :value="typeof first.week === 'string' ? first.week : own"
      :choices="weeks"
      @change="follow"
    />
    <CopyWeek v-if="channels.length === 1" :channel="first" />
    <FindingList
      :findings="findings"
      :on="ids.length === 1 ? ids[0] : undefined"
      small
      class="findings"
      aria-label="Findings here"
    />
    <template v-for="which in ['main', 'sub', 'third'] as const" :key="which">
      <ChannelRates v-if="first.streams?.[which]" :channels="channels" :which="which" />
    </template>
  </section>
</template>

<style scoped>
.findings {
  margin: 10px 0 0;
  border-top: 1px solid var(--rule);
  font-size: var(--second);
}

.facts {
  margin: 3px 0 8px;
  font-size: var(--second);
}
</style>
