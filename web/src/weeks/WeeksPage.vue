<script setup lang="ts">
import { ref } from 'vue'

import DutyShelf from '../week/DutyShelf.vue'
import SpecialDays from './SpecialDays.vue'
import WeekGallery from './WeekGallery.vue'

/** Weeks that are shared by channels, and the days on which another one holds. */
const part = ref<'weeks' | 'days'>('weeks')
</script>

<template>
  <div class="weeks">
    <h1 class="visually-hidden">Named weeks and special days</h1>
    <DutyShelf v-if="part === 'weeks'" class="shelf" />
    <div class="parts" role="tablist" aria-label="Named weeks and special days">
      <button type="button" role="tab" :aria-selected="part === 'weeks'" data-test="named-weeks" @click="part = 'weeks'">Named weeks</button>
      <button type="button" role="tab" :aria-selected="part === 'days'" data-test="special-days" @click="part = 'days'">Special days</button>
    </div>
    <WeekGallery v-if="part === 'weeks'" class="part" />
    <SpecialDays v-else class="part" />
  </div>
</template>

<style scoped>
.weeks {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.shelf {
  border-bottom: 1px solid var(--rule);
}

.parts {
  display: flex;
  gap: 18px;
  padding: 7px 16px 0;
  border-bottom: 1px solid var(--rule);
}

.parts button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 0 0 4px;
  cursor: pointer;
  color: var(--soft);
}

.parts button[aria-selected='true'] {
  color: var(--ink);
  font-weight: 600;
  border-color: var(--base);
}

.part {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px 16px;
}
</style>
