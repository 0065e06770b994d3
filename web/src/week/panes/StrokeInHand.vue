<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { change, count, three } from '../../ui/figures'
import DutySwatch from '../../duties/DutySwatch.vue'
import { inWords } from '../../time/week'
import { useCopy } from '../copying/useCopy'
import { useDraft } from '../painting/useDraft'
import { useHand } from '../../hand/useHand'

/** What the stroke, or another act that is considered, would change. */
const site = useSite()
const hand = useHand()
const copy = useCopy()
useDraft()
const draft = computed(() => hand.draft)
const duty = computed(() => site.duties.get(hand.stroke?.duty ?? hand.duty))
const names = computed(() => {
  const ids = hand.stroke?.channels ?? []
  return ids.length > 3 ? count(ids.length, 'channel') : ids.map((id) => site.channels.get(id)?.name).join(', ')
})
const aDay = (events: number) => (change(events) ? `${change(events)} a day` : 'as now')
const daysChange = computed(() => {
  const [now, then] = [draft.value?.verdict.keptDays, site.verdict?.keptDays]
  return now != null && then != null ? change(now - then) || 'no change' : ''
})
const hours = computed(() => (draft.value?.channels ? `${three(draft.value.minutes / 60)} h a week` : 'nothing'))
</script>

<template>
  <section class="hand" aria-live="polite" data-test="stroke">
    <h2>{{ hand.stroke ? (hand.stroke.duty ? 'Edge in hand' : 'Stroke in hand') : 'Considered' }}</h2>
    <template v-if="hand.stroke">
      <p>
        <b>{{ inWords(hand.hours) }}</b><br />{{ names }}
      </p>
      <p v-if="duty" class="duty"><DutySwatch :duty="duty" /> {{ duty.name }}</p>
    </template>
    <p v-else>
      <b>{{ hand.act?.title }}</b>
    </p>
    <dl v-if="draft" class="figures" data-test="draft">
      <dt>changes</dt>
      <dd>{{ hours }}</dd>
      <dd v-if="draft.channels > 1 || hand.act" class="wide soft">on {{ count(draft.channels, 'channel') }}</dd>
      <dt>GB a day</dt>
      <dd>{{ change(draft.gigabytesPerDayChange) || 'no change' }}</dd>
      <dt>days kept</dt>
      <dd>{{ daysChange }}</dd>
      <dd v-if="draft.verdict.keptDays != null" class="wide" :class="draft.verdict.short ? 'short' : 'soft'">
        then {{ three(draft.verdict.keptDays) }} of {{ draft.verdict.requiredDays ?? '—' }}
      </dd>
      <dt>events at full quality</dt>
      <dd>{{ aDay(draft.evidenceChange.fullPerDay) }}</dd>
      <dt>events, missed</dt>
      <dd>{{ aDay(draft.evidenceChange.missedPerDay) }}</dd>
    </dl>
    <p v-if="hand.stroke" class="soft">Release to paint, Esc to cancel.</p>
    <template v-else>
      <p class="soft">{{ hand.act?.how }}</p>
      <p v-if="copy.copied" class="acts">
        <button type="button" class="act" data-test="do-act" @click="copy.doIt()">Do it</button>
        <button type="button" class="plain-button link" @click="((copy.copied = undefined), copy.consider(undefined))">
          Cancel
        </button>
      </p>
    </template>
  </section>
</template>

<style scoped>
.duty {
  display: flex;
  gap: 7px;
  align-items: center;
}

.figures .wide {
  grid-column: 1 / -1;
  font-weight: 400;
}

.acts {
  display: flex;
  gap: 12px;
}
</style>
