<script setup lang="ts">
import { useWindowSize } from '@vueuse/core'
import { computed, ref } from 'vue'

import { limitsOf } from '../api/format'
import type { Activity, Hours } from '../api/types'
import TypedHours from '../duties/TypedHours.vue'
import { useSite } from '../site/useSite'
import { readNumber } from '../ui/number'
import SegmentChoice from '../ui/SegmentChoice.vue'
import type { DaysMeant } from './daysMeant'
import RateCurve from './RateCurve.vue'

/** How often an activity happens over the week: drawn by the hour, or typed to the minute. */
const props = defineProps<{ activity: Activity; small?: boolean }>()
const site = useSite()
const meant = ref<DaysMeant>('working days')
const ways = [
  ['this day', 'this day'],
  ['working days', 'working days, or the weekend'],
  ['every day', 'every day'],
] as const

function paint(hours: Hours[], perHour: number) {
  site.change([{ paintRate: { activity: props.activity.id, hours, perHour } }])
}

/** As high as the window lets it be, so that an hour is told from the next. */
const { height: windowHeight } = useWindowSize()
const height = computed(() => (props.small ? 110 : Math.round(Math.max(190, Math.min(420, windowHeight.value - 700)))))

/** A rate that is typed, for hours that are typed. */
const rate = ref('')
const typed = computed(() => {
  const { minimum: min, maximum: max } = limitsOf('activities.blocks.perHour')
  return readNumber(rate.value, { min, max })
})
const problem = computed(() => ('why' in typed.value ? `Events an hour: ${typed.value.why}.` : ''))

function keep(hours: Hours[]) {
  if ('value' in typed.value) paint(hours, typed.value.value)
  rate.value = ''
}
</script>

<template>
  <div v-if="!small" class="reach">
    <span class="soft">Drag the curve, for</span>
    <SegmentChoice v-model="meant" label="Days that a drag is meant for" :ways="ways" />
  </div>
  <RateCurve :activity="activity" :meant="meant" :height="height" @paint="paint" />
  <TypedHours
    :class="{ narrow: small }"
    label="an hour, at"
    act="Set"
    :refuse="problem"
    :keep="(hours) => keep(hours.blocks)"
  >
    <label>
      or type
      <input
        v-model="rate"
        class="rate"
        inputmode="decimal"
        autocomplete="off"
        aria-label="Events an hour"
        data-field="typed-rate"
        :aria-invalid="!!rate.trim() && !!problem"
      />
    </label>
  </TypedHours>
</template>

<style scoped>
.narrow {
  flex-wrap: wrap;
}

.reach {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin: 6px 0;
  font-size: var(--second);
}

.rate {
  width: var(--number);
  text-align: right;
}
</style>
