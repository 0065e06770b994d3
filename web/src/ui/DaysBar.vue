<script setup lang="ts">
import { computed } from 'vue'

/** Days kept against days required: a bar that ends at one and a half times what is required, with a tick at that. */
const props = defineProps<{ kept?: number | null; required: number; short?: boolean }>()
const width = computed(() => `${Math.min(100, (100 * (props.kept ?? Infinity)) / (1.5 * props.required))}%`)
</script>

<template>
  <span class="bar" :class="{ missed: short }" aria-hidden="true"
    ><span class="fill" :style="{ width }" /><span class="tick"
  /></span>
</template>

<style scoped>
.bar {
  position: absolute;
  inset: auto 0 0;
  height: 3px;
  background: var(--rule);
}

.fill {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--soft);
}

.missed .fill {
  background: var(--short);
}

.tick {
  position: absolute;
  left: 66.67%;
  top: -2px;
  width: 1px;
  height: 7px;
  background: var(--ink);
}
</style>
