<script setup lang="ts">
import DayMenu from './DayMenu.vue'
import { dayNames, type Span } from './time'

defineEmits<{ paint: [channels: string[], span: Span] }>()
</script>

<template>
  <div class="days">
    <div v-for="(d, i) in dayNames" :key="d" class="day">
      <DayMenu :day="i" @paint="(channels, span) => $emit('paint', channels, span)" />
      <span v-for="h in [6, 12, 18]" :key="h" class="hour" aria-hidden="true" :style="{ left: `${(100 * h) / 24}%` }">{{ h }}</span>
    </div>
  </div>
</template>

<style scoped>
.days {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
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
</style>
