<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'

import type { Arrangement } from './rows'
import { useHand } from '../../hand/useHand'
import { count } from '../../ui/figures'
import { later } from '../../ui/later'
import { useOnce } from '../../ui/useOnce'

/** Finds, orders and groups the channels shown, and says what their ink is a share of. */
const how = defineModel<Arrangement>({ required: true })
defineProps<{ shown: number; all: number }>()
const hand = useHand()
const ArrangeBox = later(async () => (await import('../reserve')).ArrangeBox)
const open = ref(false)
const opened = useOnce(() => open.value)
const box = useTemplateRef('box')
onClickOutside(box, () => (open.value = false))
const isPlain = computed(
  () =>
    how.value.sort === 'number' &&
    how.value.grouped &&
    !how.value.byRecorder &&
    !how.value.findings &&
    hand.ink === 'rate',
)
/** What the figures of the rows are. */
const caption = computed(() => ({ share: 'of the disk', short: 'kept' })[how.value.sort as string] ?? 'a day')
const set = (change: Partial<Arrangement>) => (how.value = { ...how.value, ...change })
</script>

<template>
  <div ref="box" class="arrange" @keydown.esc.stop="open = false">
    <span class="caption soft" aria-hidden="true">{{ caption }}</span>
    <input
      type="search"
      class="search"
      :value="how.search"
      :title="`Find in ${count(all, 'channel')}`"
      placeholder="Find channels"
      aria-label="Find channels"
      data-test="find-channels"
      @input="set({ search: ($event.target as HTMLInputElement).value })"
    />
    <button
      type="button"
      class="plain-button more"
      :class="{ changed: !isPlain }"
      :aria-expanded="open"
      aria-haspopup="true"
      data-test="arrange"
      title="Order, group, ink"
      @click="open = !open"
    >
      {{ isPlain ? 'Order' : shown === all ? 'Ordered' : shown }}
    </button>
    <ArrangeBox v-if="opened" v-show="open" v-model="how" />
  </div>
</template>

<style scoped>
.arrange {
  position: relative;
  display: flex;
  gap: 6px;
  align-items: center;
  align-self: end;
  padding: 0 8px 3px;
  font-size: var(--second);
}

.caption {
  position: absolute;
  right: 10px;
  bottom: calc(100% - 4px);
  font-size: var(--axis);
}

.search {
  min-width: 0;
  flex: 1;
}

.more {
  color: var(--base);
}

@media print {
  .search,
  .more {
    display: none;
  }
}

.more.changed {
  color: var(--base);
  font-weight: 600;
}
</style>
