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
        :title="`Select the channels of ${group.name}; they write ${group.says} a day`"
        @click="hand.show(group.ids)"
      >
        {{ group.name }} <span class="says">{{ group.says }}</span>
      </button>
      <b v-if="group.kept" class="kept" title="Days kept by the channels from here on, but for those that say others">{{
        group.kept
      }}</b>
    </div>
  </div>
</template>

<style scoped>
.says {
  margin-left: 6px;
  font-size: var(--axis);
}

.kept {
  margin-left: auto;
  color: var(--ink);
}

.group > div {
  display: flex;
  width: calc(var(--channel-width) - 12px);
  padding-right: 10px;
}

.group button {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}

.group {
  white-space: nowrap;
  height: 20px;
  padding: 3px 0 0 12px;
  border-bottom: 1px solid var(--rule);
  font-size: var(--second);
  line-height: 16px;
}
</style>
