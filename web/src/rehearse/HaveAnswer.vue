<script setup lang="ts">
import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { momentOf } from './clock'
import type { Rehearsing } from './useRehearsal'
import { useGoing } from '../api/going'

/** Whether there would be footage of a channel at a moment, until when, why, and in how many of 200 rehearsals. */
const props = defineProps<{ r: Rehearsing; channel: string; at: number; to?: number }>()
const site = useSite()
const query = () => ({ ...props.r.query.value, channel: props.channel, at: props.at, to: props.to })
const about = () => [props.r.data.value, props.channel, props.at, props.to]
const { data: have, failure } = useAnswer(
  about,
  () =>
    props.channel && props.r.data.value
      ? api.GET('/api/plans/{id}/rehearse/have', { params: { ...site.here, query: query() } })
      : undefined,
  { fresh: true },
)
const {
  data: odds,
  failure: oddsFailure,
  asking,
} = useAnswer(
  about,
  () =>
    props.channel && props.r.data.value
      ? api.GET('/api/plans/{id}/rehearse/odds', { params: { ...site.here, query: query() } })
      : undefined,
  { debounce: 250, fresh: true },
)
useGoing({ what: 'Asking 200 rehearsals' }, () => asking.value)
const point = (event: number) => props.r.point({ channel: props.channel, event, start: props.at })
</script>

<template>
  <p v-if="failure" class="short" role="alert">{{ failure }}</p>
  <template v-else-if="have && r.data.value">
    <p class="soft">{{ momentOf(r.data.value, at) }}, {{ have.duty || 'no duty' }}</p>
    <p class="answer" :class="have.fate" data-test="answer">{{ have.words }}</p>
    <p v-if="have.goneOn">By the typical days kept it would be overwritten on {{ have.goneOn }}.</p>
    <template v-if="have.causes?.length">
      <h3>Why it is there</h3>
      <ul>
        <li v-for="(c, i) in have.causes" :key="i">
          <button type="button" class="plain-button link" @click="point(have.events![i]!)">{{ c }}</button>
        </li>
      </ul>
    </template>
    <p v-if="odds" data-test="odds">
      In {{ odds.full + odds.low }} of {{ odds.rehearsals }} rehearsals there is footage then<template v-if="odds.low"
        >, in {{ odds.low }} of them low only</template
      >.
    </p>
    <p v-else-if="oddsFailure" class="short" role="alert">How often in other weeks is not known: {{ oddsFailure }}</p>
    <p v-else class="soft">{{ asking ? 'Playing 200 other weeks…' : '' }}</p>
  </template>
  <p v-else class="soft" role="status">Looking it up…</p>
</template>

<style scoped>
p {
  margin: 2px 0 6px;
}

h3 {
  margin: 10px 0 0;
  font-size: var(--second);
}

.answer {
  font-weight: 600;
}

.missed {
  color: var(--short);
}

ul {
  margin: 2px 0;
  padding-left: 18px;
}
</style>
