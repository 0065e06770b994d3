<script setup lang="ts">
import { dayNames } from './time'
</script>

<template>
  <div class="days" aria-hidden="true">
    <div v-for="d in dayNames" :key="d" class="day">
      <b>{{ d.slice(0, 3) }}</b>
      <span v-for="h in [6, 12, 18]" :key="h" class="hour" :style="{ left: `${(100 * h) / 24}%` }">{{ h }}</span>
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
