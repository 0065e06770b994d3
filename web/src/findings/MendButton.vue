<script setup lang="ts">
import { computed } from 'vue'

import type { Finding } from '../api/types'
import { useSite } from '../site/useSite'
import { change, count, three } from '../ui/figures'
import type { Tried } from './useEffects'
import { channelsOf, fixOf, useFindings } from './useFindings'

/**
 * The fix of a finding, or one of the other ways to mend it, offered when it has been tried, with what it does to the
 * days and the evidence; that stands in its tip where it is brief.
 */
const {
  finding,
  tried,
  choice = 0,
} = defineProps<{
  finding: Finding
  tried: Tried
  brief?: boolean
  columns?: boolean // what it does stands in columns beside it, and is only spoken here
  choice?: number
}>()
const { mend } = useFindings()
const site = useSite()
const fix = computed(() => fixOf(finding, choice))
const effect = computed(() => tried.of(finding, choice))
const many = computed(() => channelsOf(finding).length)

/** What is found still once it is made. */
const after = computed(() => {
  const e = effect.value
  if (e?.mends !== 'less') return ''
  return many.value > 1 ? `still found on ${e.left ?? 0} of ${count(many.value, 'channel')}` : `then: ${e.then ?? ''}`
})

const does = computed(() => {
  const e = effect.value
  if (!e) return ''
  const parts = [
    change(e.moreDays) && `${change(e.moreDays)} days${e.keptDays != null ? `, ${three(e.keptDays)} kept` : ''}`,
    change(e.missedPerDay) && `${change(e.missedPerDay)} missed events a day`,
    change(e.gigabytesPerDay) && `${change(e.gigabytesPerDay)} GB a day`,
  ].filter(Boolean)
  if (!parts.length) parts.push('changes neither the days nor the evidence')
  if (after.value) parts.push(after.value)
  return parts.join(' · ')
})
</script>

<template>
  <span v-if="fix && !finding.accepted" class="mending">
    <span v-if="effect?.mends === 'same'" class="soft" data-test="no-mend">
      {{ fix.label }}: tried, and it would not mend this.
    </span>
    <span v-else-if="tried.failure" class="soft" role="alert">
      {{ fix.label }}: could not be tried. {{ tried.failure }}
      <button type="button" class="plain-button link" @click="tried.again()">Try again</button>
    </span>
    <button
      v-else-if="brief"
      type="button"
      class="plain-button link"
      :disabled="!effect || site.role !== 'planner'"
      :title="does"
      :data-mend="finding.id"
      @click="mend(finding, choice)"
    >
      {{ fix.label }}
    </button>
    <template v-else>
      <button
        type="button"
        class="act quiet"
        :disabled="!effect || site.role !== 'planner'"
        :data-mend="choice ? `${finding.id} ${choice}` : finding.id"
        @click="mend(finding, choice)"
      >
        {{ fix.label }}{{ finding.places && !finding.pool ? `, ${count(finding.places.length, 'channel')}` : '' }}
      </button>
      <span class="soft" :class="{ 'visually-hidden': columns && effect }" data-test="effect">{{
        effect ? does : 'being tried…'
      }}</span>
      <span v-if="columns && after" class="soft" aria-hidden="true">{{ after }}</span>
    </template>
  </span>
</template>

<style scoped>
.mending {
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
</style>
