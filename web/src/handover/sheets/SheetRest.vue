<script setup lang="ts">
import type { SheetStep } from '../../api/types'

/** What follows on a sheet: the first lines of the sections behind the one in hand, each with the way to it. */
defineProps<{ sections: { id: string; name: string; number: number; steps: SheetStep[]; done: number }[] }>()
defineEmits<{ open: [id: string] }>()
const MOST = 3
</script>

<template>
  <section class="rest" aria-label="What follows" data-test="rest">
    <h3>What follows</h3>
    <div class="sections">
      <div v-for="s in sections" :key="s.id">
        <button type="button" class="plain-button link" @click="$emit('open', s.id)">
          {{ s.number }} · {{ s.name }}
        </button>
        <span class="soft"> {{ s.done }} of {{ s.steps.length }}</span>
        <p v-for="step in s.steps.slice(0, MOST)" :key="step.id" class="soft" :title="step.words">
          {{ step.id }} {{ step.words }}
        </p>
        <p v-if="s.steps.length > MOST" class="soft">and {{ s.steps.length - MOST }} more</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.rest {
  padding: 16px 6px 0;
}

.sections {
  columns: 2 420px;
  column-gap: 32px;
}

.sections > div {
  break-inside: avoid;
  margin: 6px 0 12px;
}

.link {
  margin-right: 8px;
}

p {
  margin: 2px 0;
  font-size: var(--second);
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

@media (max-width: 900px) {
  .rest {
    display: none;
  }
}
</style>
