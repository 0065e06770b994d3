<script setup lang="ts">
import { ref } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import DutyShelf from '../duties/DutyShelf.vue'
import TabBar from '../ui/TabBar.vue'
import SpecialDays from './SpecialDays.vue'
import WeekGallery from './WeekGallery.vue'

/** Weeks that are shared by channels, and the days on which another one holds. */
const parts = [
  ['weeks', 'Named weeks'],
  ['days', 'Special days'],
] as const
const part = ref<(typeof parts)[number][0]>('weeks')
</script>

<template>
  <div class="weeks">
    <h1 class="visually-hidden">Named weeks and special days</h1>
    <DutyShelf v-if="part === 'weeks'" class="shelf" />
    <TabBar v-model="part" :tabs="parts" class="parts" />
    <WeekGallery v-if="part === 'weeks'" class="part" />
    <SpecialDays v-else class="part" />
    <PlanGlance />
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
  padding: 5px 16px 0;
}

/* A phone is for reading. */
@media (max-width: 500px) {
  .shelf {
    display: none;
  }
}

.part {
  flex: 0 1 auto;
  min-height: 0;
  overflow: auto;
  padding: 12px 16px;
}
</style>
