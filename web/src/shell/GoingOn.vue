<script setup lang="ts">
import { computed } from 'vue'

import { going } from '../api/going'
import { whole } from '../ui/figures'

/** What is being worked out now, how far it has got, and how it is stopped: in one place, on every page. */
const all = computed(() => [...going])
const first = computed(() => all.value[0])
const told = computed(() => {
  const percent = first.value?.percent?.()
  const rest = all.value.length > 1 ? `, and ${all.value.length - 1} more` : ''
  return `${first.value?.what}${percent === undefined ? '…' : ` ${whole(Math.round(percent))} %`}${rest}`
})
const list = computed(() => all.value.map((g) => g.what).join('\n'))
</script>

<template>
  <span v-if="first" class="going" :title="list" data-test="going">
    <span class="dot" aria-hidden="true" /><span role="status">{{ told }}</span>
    <button v-if="first.stop" type="button" class="plain-button link" data-test="stop-going" @click="first.stop()">
      Stop
    </button>
  </span>
</template>

<style scoped>
.going {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
  white-space: nowrap;
  font-size: var(--second);
  color: var(--soft);
}

.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--base);
  animation: breathe 1.2s ease-in-out infinite alternate;
}

@keyframes breathe {
  to {
    opacity: 0.2;
  }
}

@media (max-width: 760px) {
  .going > span:not(.dot) {
    display: none;
  }
}
</style>
