<script setup lang="ts">
import { computed, useId } from 'vue'

import type { Duty } from '../api/types'

const props = defineProps<{ duty: Duty }>()
const id = useId()

/** How high the base stands: full, low for another stream or fewer frames. */
const base = computed(() => {
  const b = props.duty.base
  if (!b) return 0
  return b.stream === 'main' && !b.fps && !b.keyframesOnly ? (props.duty.event ? 9 : 16) : 5
})
const motion = computed(() => props.duty.event?.on.includes('motion'))
const alarm = computed(() => props.duty.event?.on.includes('alarm'))
</script>

<template>
  <svg class="swatch" viewBox="0 0 16 16" aria-hidden="true">
    <defs>
      <pattern :id="`m${id}`" width="3" height="3" patternUnits="userSpaceOnUse">
        <rect width="3" height="3" class="tint-motion" />
        <rect width="1.2" height="3" class="motion" />
      </pattern>
      <pattern :id="`a${id}`" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="4" height="4" class="tint-alarm" />
        <rect width="1.6" height="4" class="alarm" />
      </pattern>
    </defs>
    <rect v-if="motion" :width="alarm ? 8 : 16" :height="16 - base" :fill="`url(#m${id})`" />
    <rect v-if="alarm" :x="motion ? 8 : 0" :width="motion ? 8 : 16" :height="16 - base" :fill="`url(#a${id})`" />
    <template v-if="base">
      <template v-if="duty.base?.keyframesOnly">
        <rect v-for="k in 4" :key="k" :x="(k - 1) * 4" :y="16 - base" width="2.4" :height="base" class="base" />
      </template>
      <rect v-else :y="16 - base" width="16" :height="base" class="base" />
    </template>
    <path v-if="!duty.base && !duty.event" d="M1 14.5h14" class="off" />
  </svg>
</template>

<style scoped>
.swatch {
  width: 16px;
  height: 16px;
  flex: none;
  background: var(--paper);
  border-radius: 2px;
}

.base {
  fill: var(--base);
}

.motion {
  fill: var(--motion);
}

.alarm {
  fill: var(--alarm);
}

.tint-motion {
  fill: var(--motion);
  opacity: 0.22;
}

.tint-alarm {
  fill: var(--alarm);
  opacity: 0.22;
}

.off {
  stroke: var(--soft);
  stroke-width: 1.5;
  stroke-dasharray: 1.5 2.5;
}
</style>
