<script setup lang="ts">
import { computed } from 'vue'

import type { Finding } from '../api/types'
import { change } from '../ui/figures'
import MendButton from './MendButton.vue'
import type { Tried } from './useEffects'
import { fixOf } from './useFindings'

/** The ways to mend a finding one below another, with what each does in columns: days, missed events, gigabytes. */
const props = defineProps<{ finding: Finding; tried: Tried }>()

const ways = computed(() =>
  [0, ...(props.finding.choices ?? []).map((_, i) => i + 1)]
    .filter((choice) => fixOf(props.finding, choice))
    .map((choice) => {
      const e = props.tried.of(props.finding, choice)
      const figures = e && e.mends !== 'same' ? [e.moreDays, -e.missedPerDay, -e.gigabytesPerDay] : undefined
      return {
        choice,
        figures: figures?.map((gain, i) => ({ text: change(i ? -gain : gain), worse: i < 2 && gain < 0 })),
      }
    }),
)
</script>

<template>
  <div v-if="!finding.accepted && ways.length" class="ways">
    <div v-for="way in ways" :key="way.choice" class="way">
      <MendButton :finding="finding" :tried="tried" :choice="way.choice" columns />
      <span
        v-for="(f, i) in way.figures"
        :key="i"
        class="figure"
        :class="{ short: f.worse && f.text }"
        aria-hidden="true"
        >{{ f.text || '—' }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.way {
  display: grid;
  grid-template-columns: minmax(0, 1fr) repeat(3, 76px);
  gap: 0 8px;
  align-items: baseline;
  padding-top: 3px;
}

.figure {
  text-align: right;
  white-space: nowrap;
}

@media (max-width: 500px) {
  .way {
    grid-template-columns: minmax(0, 1fr) repeat(3, 54px);
    gap: 0 4px;
  }
}
</style>
