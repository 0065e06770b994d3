<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { gigabytes, kbps, three } from '../../ui/figures'
import { moment } from '../../time/week'
import type { Pointer } from '../../hand/useHand'

const site = useSite()

/** What a channel does at a moment of its week, and why. */
const { at } = defineProps<{ at: Pointer }>()
const look = computed(() => {
  const channel = site.channels.get(at.channel)
  const ribbon = site.ribbons.get(at.channel)
  if (!channel || !ribbon) return undefined
  const i = ribbon.ink.from.findLastIndex((m) => m <= at.minute)
  const duty = site.duties.get(ribbon.rail.findLast((r) => r.from <= at.minute)?.duty ?? '')
  const { base, motion, alarm, written } = ribbon.ink
  return {
    channel,
    duty,
    figures: site.figures.get(channel.id),
    when: moment(at.minute),
    written: written[i]! / 10,
    base: base[i]!,
    motion: motion[i]!,
    alarm: alarm[i]!,
  }
})

/** Where what is written at this moment comes from. */
const why = computed(() => {
  const l = look.value
  if (!l) return ''
  if (l.channel.noCamera) return 'There is no camera on this channel.'
  const parts: string[] = []
  if (l.base) parts.push(`${kbps(l.base)} because the base layer is on`)
  if (l.motion) parts.push(`${kbps(l.motion)} for motion`)
  if (l.alarm) parts.push(`${kbps(l.alarm)} for alarms`)
  return parts.length ? `${parts.join(', ')}.` : idle(l)
})

/** Why nothing is expected to be written. */
function idle({ duty, channel }: NonNullable<typeof look.value>): string {
  if (!duty?.base && !duty?.event) return 'Nothing is written: the duty is off.'
  if (duty.event?.on.includes('motion') && !channel.detection?.on)
    return 'Nothing is written: the duty waits for motion, and detection is off.'
  return duty.base ? 'Nothing is written: the camera has no such stream.' : 'Nothing is expected to happen then.'
}

/** What is kept around an event, to scale: before it, while it lasts, after it. */
const around = computed(() => {
  const c = look.value?.channel
  const activity = site.plan?.activities?.find((a) => a.id === c?.activity)
  if (!c || !look.value?.duty?.event || !activity) return undefined
  const parts = { pre: c.preSeconds ?? 0, event: activity.meanSeconds, post: c.postSeconds ?? 0 }
  const sum = parts.pre + parts.event + parts.post
  const percent = (s: number) => `${(100 * s) / sum}%`
  return {
    ...parts,
    activity,
    widths: { pre: percent(parts.pre), event: percent(parts.event), post: percent(parts.post) },
  }
})
const evidence = computed(() => look.value?.figures?.evidence)
</script>

<template>
  <template v-if="look">
    <h2>{{ look.channel.name }} · {{ look.when }}</h2>
    <p>{{ look.duty?.name }}</p>
    <dl v-if="!look.channel.noCamera">
      <dt>written</dt>
      <dd>{{ three(look.written) }} %</dd>
      <dt>bitrate</dt>
      <dd>{{ kbps(look.base + look.motion + look.alarm) }}</dd>
      <dt>whole week</dt>
      <dd>{{ gigabytes(look.figures?.gigabytesPerDay ?? 0) }} a day</dd>
      <template v-if="evidence?.eventsPerDay"
        ><dt>events a day</dt>
        <dd>{{ three(evidence.eventsPerDay) }}</dd>
        <dt>at full quality</dt>
        <dd>{{ three(evidence.fullPercent) }} %</dd>
        <dt>missed</dt>
        <dd>{{ three(evidence.missedPercent) }} %</dd></template
      >
    </dl>
    <div
      v-if="around"
      class="around"
      role="img"
      :aria-label="`Around an event: ${around.pre} s before, ${three(around.event)} s of event, ${around.post} s after`"
    >
      <span class="pre" :style="{ width: around.widths.pre }" /><span
        class="event"
        :style="{ width: around.widths.event }"
      /><span class="post" :style="{ width: around.widths.post }" />
      <small>{{ around.pre }} s · event {{ three(around.event) }} s · {{ around.post }} s</small>
    </div>
    <p class="soft">{{ why }}</p>
  </template>
</template>

<style scoped>
.around {
  display: flex;
  flex-wrap: wrap;
  margin: 4px 0;
}

.around span {
  height: 7px;
  border: 1px solid var(--motion);
}

.around .event {
  background: var(--motion);
}

.around small {
  width: 100%;
  font-size: var(--axis);
  color: var(--soft);
}

p {
  margin: 2px 0 6px;
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 8px;
  margin: 0 0 6px;
}

dt {
  color: var(--soft);
}

dd {
  margin: 0;
  text-align: right;
}
</style>
