<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { change, count, three } from '../ui/figures'
import DutySwatch from '../week/DutySwatch.vue'
import { inWords } from '../week/time'
import { useHand } from '../week/useHand'
import { useDraft } from '../week/useDraft'

const site = useSite()
const hand = useHand()
const { draft } = useDraft()
const duty = computed(() => site.duties.get(hand.duty))
const names = computed(() => {
  const ids = hand.stroke?.channels ?? []
  return ids.length > 3 ? count(ids.length, 'channel') : ids.map((id) => site.channels.get(id)?.name).join(', ')
})
const aDay = (events: number) => (change(events) ? `${change(events)} a day` : 'as now')
const daysChange = computed(() => {
  const [now, then] = [draft.value?.verdict.keptDays, site.verdict?.keptDays]
  return now != null && then != null ? change(now - then) || 'no change' : ''
})
</script>

<template>
  <section class="hand" aria-live="polite" data-test="stroke">
    <h2>Stroke in hand</h2>
    <p><b>{{ inWords(hand.hours) }}</b><br />{{ names }}</p>
    <p v-if="duty" class="duty"><DutySwatch :duty="duty" /> {{ duty.name }}</p>
    <dl v-if="draft" class="figures" data-test="draft">
      <dt>GB a day</dt><dd>{{ change(draft.gigabytesPerDayChange) || 'no change' }}</dd>
      <dt>days kept</dt><dd>{{ daysChange }}</dd>
      <dd v-if="draft.verdict.keptDays != null" class="wide soft">then {{ three(draft.verdict.keptDays) }} of {{ draft.verdict.requiredDays ?? '—' }}</dd>
      <dt>events in full</dt><dd>{{ aDay(draft.evidenceChange.fullPerDay) }}</dd>
      <dt>events missed</dt><dd>{{ aDay(draft.evidenceChange.missedPerDay) }}</dd>
    </dl>
    <p class="soft">Release to paint, Esc to leave it.</p>
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
</style>
