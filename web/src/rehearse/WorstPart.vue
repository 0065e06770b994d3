<script setup lang="ts">
import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'
import { momentOf } from './clock'
import type { Rehearsing } from './useRehearsal'

/** The question the other way round: where these days are worst. */
const { r } = defineProps<{ r: Rehearsing }>()
const site = useSite()
const { data: worst, failure } = useAnswer(
  () => r.data.value,
  () =>
    r.data.value
      ? api.GET('/api/plans/{id}/rehearse/worst', { params: { ...site.here, query: r.query.value } })
      : undefined,
  { keep: true },
)
const name = (id: string) => site.channels.get(id)?.name ?? id
const long = (s: number) => (s < 5400 ? `${three(s / 60)} min` : `${three(s / 3600)} h`)
</script>

<template>
  <section data-test="worst">
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <template v-if="worst && r.data.value">
      <h2>The hour with most missed</h2>
      <p v-if="worst.hour">
        <button type="button" class="plain-button link" @click="r.show(worst.hour.from + 1800, 7200)">
          {{ worst.hour.words }}</button>: {{ worst.hour.missed }} wanted events are not on disk.
      </p>
      <p v-else class="soft">No wanted event is missed in these days.</p>
      <h2>Longest without any picture</h2>
      <p v-if="!worst.gaps?.length" class="soft">Every channel has a picture at every moment.</p>
      <ol>
        <li v-for="g in worst.gaps" :key="g.channel">
          <button type="button" class="plain-button link" @click="r.show((g.from + g.to) / 2, (g.to - g.from) * 1.4)">
            {{ name(g.channel) }}</button>: {{ long(g.to - g.from) }} from {{ momentOf(r.data.value, g.from) }}
        </li>
      </ol>
      <h2>Slowest copies</h2>
      <p v-if="!worst.copied" class="soft">Nothing is copied off site.</p>
      <ol>
        <li v-for="c in worst.slow" :key="`${c.channel} ${c.event}`">
          <button
            type="button"
            class="plain-button link"
            @click="r.point({ channel: c.channel, event: c.event, start: c.at })"
          >
            {{ name(c.channel) }}, {{ momentOf(r.data.value, c.at) }}</button
          >: {{ long(c.seconds) }} after the event
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 10px 0 2px;
}

ol {
  margin: 2px 0;
  padding-left: 22px;
}
</style>
