<script setup lang="ts">
import { computed } from 'vue'

import DayMenu from './DayMenu.vue'
import { dayNames, type Span } from './time'
import { useHand } from './useHand'

defineEmits<{ paint: [channels: string[], span: Span] }>()
const hand = useHand()
const days = computed(() => (hand.day === undefined ? [0, 1, 2, 3, 4, 5, 6] : [hand.day]))
const ticks = computed(() => (hand.day === undefined ? [6, 12, 18] : Array.from({ length: 23 }, (_, i) => i + 1)))
</script>

<template>
  <div class="days" :style="{ gridTemplateColumns: `repeat(${days.length}, 1fr)` }">
    <div v-for="d in days" :key="d" class="day">
      <DayMenu :day="d" @paint="(channels, span) => $emit('paint', channels, span)" />
      <span v-if="hand.day !== undefined" class="steps">
        <button type="button" class="plain-button" title="The day before" data-test="day-before" @click="hand.day = (d + 6) % 7">◂ {{ dayNames[(d + 6) % 7]!.slice(0, 3) }}</button>
        <button type="button" class="plain-button" title="The day after" data-test="day-after" @click="hand.day = (d + 1) % 7">{{ dayNames[(d + 1) % 7]!.slice(0, 3) }} ▸</button>
        <button type="button" class="plain-button whole" data-test="whole-week" @click="hand.day = undefined">whole week</button>
      </span>
      <span v-for="h in ticks" :key="h" class="hour" aria-hidden="true" :style="{ left: `${(100 * h) / 24}%` }">{{ h }}</span>
    </div>
  </div>
</template>

<style scoped>
.days {
  display: grid;
}

.day {
  position: relative;
  height: 33px;
  padding-left: 5px;
  border-left: 1px solid var(--rule);
}

.hour {
  position: absolute;
  bottom: 1px;
  transform: translateX(-50%);
  font-size: 11px;
  color: var(--soft);
}

.steps {
  margin-left: 14px;
  font-size: 12px;
}

.steps button {
  margin-right: 12px;
}

.whole {
  text-decoration: underline;
}

@media (max-width: 760px) {
  .hour {
    display: none;
  }
}
</style>
