<script setup lang="ts">
import { computed, h } from 'vue'

import { daysIn, ticksOf } from '../../time/ticks'
import { DAY, dayNames, placeIn, type Span } from '../../time/week'
import { useCopy } from '../copying/useCopy'
import { useDayDrag } from '../copying/useDayDrag'
import { useHand } from '../../hand/useHand'
import { later } from '../../ui/later'

const DayMenu = later(
  async () => (await import('../reserve')).DayMenu,
  ({ day }: { day: number }) =>
    h(
      'button',
      { type: 'button', class: 'plain-button', style: 'font-weight: 600', disabled: true },
      dayNames[day]!.slice(0, 3),
    ),
)
const props = defineProps<{ width: number }>()
defineEmits<{ paint: [channels: string[], span: Span] }>()
const hand = useHand()
const drag = useDayDrag(useCopy())
const days = computed(() =>
  daysIn(hand.view).map((d) => ({
    d,
    place: placeIn(hand.view, { from: Math.max(d * DAY, hand.view.from), to: Math.min((d + 1) * DAY, hand.view.to) }),
  })),
)
const ticks = computed(() =>
  ticksOf(hand.view, props.width, hand.view.to - hand.view.from < 600 ? 42 : 25)
    .ticks.filter((t) => ((t.minute - hand.view.from) / (hand.view.to - hand.view.from)) * props.width > 14)
    .map((t) => ({ ...t, left: placeIn(hand.view, { from: t.minute, to: t.minute }).left })),
)
</script>

<template>
  <div class="days">
    <div
      v-for="{ d, place } in days"
      :key="d"
      class="day"
      :class="{ target: drag.over.value.includes(d) }"
      :style="place"
      :data-day-heading="d"
      @pointerdown="drag.down"
    >
      <DayMenu :day="d" @paint="(channels, span) => $emit('paint', channels, span)" />
      <span v-if="hand.day !== undefined" class="steps">
        <button
          type="button"
          class="plain-button"
          title="The day before"
          data-test="day-before"
          @click="hand.day = (d + 6) % 7"
        >
          ◂ {{ dayNames[(d + 6) % 7]!.slice(0, 3) }}
        </button>
        <button
          type="button"
          class="plain-button"
          title="The day after"
          data-test="day-after"
          @click="hand.day = (d + 1) % 7"
        >
          {{ dayNames[(d + 1) % 7]!.slice(0, 3) }} ▸
        </button>
      </span>
    </div>
    <button
      v-if="!hand.isWhole"
      type="button"
      class="plain-button whole"
      data-test="whole-week"
      @click="hand.day = undefined"
    >
      whole week
    </button>
    <span v-for="t in ticks" :key="t.minute" class="hour" data-hour aria-hidden="true" :style="{ left: t.left }">{{
      t.text
    }}</span>
  </div>
</template>

<style scoped>
.days {
  position: relative;
  height: 33px;
}

.day {
  position: absolute;
  top: 0;
  bottom: 0;
  padding-left: 5px;
  border-left: 1px solid var(--rule);
  white-space: nowrap;
  cursor: grab;
}

.day.target {
  background: var(--selected);
}

.hour {
  position: absolute;
  bottom: 1px;
  transform: translateX(-50%);
  font-size: var(--axis);
  color: var(--soft);
  pointer-events: none;
}

.steps {
  margin-left: 14px;
  font-size: var(--second);
}

.steps button {
  margin-right: 12px;
}

.whole {
  position: absolute;
  right: 8px;
  top: 1px;
  font-size: var(--second);
  color: var(--base);
  background: var(--paper);
}

@media (max-width: 500px) {
  .hour {
    display: none;
  }

  .day {
    padding-left: 1px;
    overflow: hidden;
    font-size: var(--axis);
  }

  .day :deep(.el-dropdown) {
    font-size: inherit;
  }
}

@media (min-width: 501px) and (max-width: 1000px) and (max-height: 520px) {
  .days {
    height: 20px;
  }

  .hour {
    display: none;
  }
}
</style>
