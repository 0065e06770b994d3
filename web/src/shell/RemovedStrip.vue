<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { useVariants } from '../site/useVariants'

/** Says that the variant in hand was removed, by whomever: it takes no changes until it is restored. */
const site = useSite()
const { remove, show } = useVariants()
const variant = computed(() => site.variants.find((v) => v.id === site.planId))
</script>

<template>
  <p class="removed" role="alert" data-test="removed">
    <span
      ><b>{{ variant?.name || 'This variant' }} was removed.</b> It can be looked at, and takes no changes.</span
    >
    <button
      v-if="site.role === 'planner'"
      type="button"
      class="act quiet"
      data-test="restore-this"
      @click="remove(variant!, false)"
    >
      Restore it
    </button>
    <button type="button" class="act quiet" data-test="open-adopted" @click="show(site.adopted)">
      Open the adopted one
    </button>
  </p>
</template>

<style scoped>
.removed {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  margin: 0;
  padding: 4px 16px;
  border-bottom: 2px solid var(--alarm);
  background: var(--sheet);
}
</style>
