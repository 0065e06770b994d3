<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { gigabytes, kbps, three } from '../ui/figures'
import { moment } from '../week/time'
import { useHand } from '../week/useHand'

const site = useSite()
const hand = useHand()

const look = computed(() => {
  const at = hand.pointer
  const channel = at && site.channels.get(at.channel)
  const ribbon = at && site.ribbons.get(at.channel)
  if (!at || !channel || !ribbon) return undefined
  const i = ribbon.ink.from.findLastIndex((m) => m <= at.minute)
  const duty = site.duties.get(ribbon.rail.findLast((r) => r.from <= at.minute)?.duty ?? '')
  const { base, motion, alarm, written } = ribbon.ink
  return {
    channel, duty, figures: site.figures.get(channel.id),
    when: moment(at.minute), written: written[i]! / 10, base: base[i]!, motion: motion[i]!, alarm: alarm[i]!,
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
  return parts.length ? `${parts.join(', ')}.` : 'Nothing is expected to be written.'
})
</script>

<template>
  <section class="look" aria-label="Under the pointer" aria-live="polite">
    <template v-if="look">
      <h2>{{ look.channel.name }} · {{ look.when }}</h2>
      <p>{{ look.duty?.name }}</p>
      <dl v-if="!look.channel.noCamera">
        <dt>written</dt><dd>{{ three(look.written) }} % of the time</dd>
        <dt>bitrate</dt><dd>{{ kbps(look.base + look.motion + look.alarm) }}</dd>
        <dt>whole week</dt><dd>{{ gigabytes(look.figures?.gigabytesPerDay ?? 0) }} a day</dd>
      </dl>
      <p class="soft">{{ why }}</p>
    </template>
    <p v-else class="soft">Point at a ribbon for a closer look. Its ink is what the channel writes: the area is the disk.</p>
  </section>
</template>

<style scoped>
.look {
  min-height: 158px;
  padding: 10px 14px;
  border-top: 1px solid var(--rule);
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
