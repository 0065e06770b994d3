<script setup lang="ts">
import { useHand } from '../../hand/useHand'
import type { Row } from './rows'

/** The heading of a group of channels: it selects them. */
defineProps<{ group: Extract<Row, { kind: 'group' }> }>()
const hand = useHand()
</script>

<template>
  <div class="group" role="row">
    <div role="rowheader">
      <button
        type="button"
        class="plain-button soft"
        :title="`Select the channels of ${group.name}`"
        @click="hand.show(group.ids)"
      >
        {{ group.name }} <span class="says">{{ group.says }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.says {
  margin-left: 6px;
  font-size: 11px;
}

.group {
  white-space: nowrap;
  height: 20px;
  padding: 3px 0 0 12px;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
  line-height: 16px;
}
</style>
