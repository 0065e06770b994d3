<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { later } from '../../ui/later'
import TermTip from '../../ui/TermTip.vue'
import { useHand } from '../../hand/useHand'

const AtPointer = later(async () => (await import('../reserve')).AtPointer)
const site = useSite()
const hand = useHand()
const at = computed(() => (hand.pointer && site.ribbons.has(hand.pointer.channel) ? hand.pointer : undefined))
</script>

<template>
  <section class="look" aria-label="Under the pointer" aria-live="polite">
    <AtPointer v-if="at" :at="at" />
    <p v-else class="soft">
      Point at a ribbon for a closer look. Its <TermTip word="ink" /> is what the channel writes: the area is the disk.
    </p>
  </section>
</template>

<style scoped>
.look {
  min-height: 200px;
  padding: 10px 14px;
  border-top: 1px solid var(--rule);
}

p {
  margin: 2px 0 6px;
}
</style>
