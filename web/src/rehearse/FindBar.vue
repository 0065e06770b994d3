<script setup lang="ts">
import { ElInput } from 'element-plus'

import { notice } from '../ui/notice'
import SegmentChoice from '../ui/SegmentChoice.vue'
import { MISSED } from './rows'
import type { Rehearsing } from './useRehearsal'

/** Finds channels and events on the timeline, looks closer, and says what its marks mean. */
const { r } = defineProps<{ r: Rehearsing }>()
// What is found by is the page's, so it is taken out of the prop to be set.
const { words, fates, data } = r
function find(what: 'missed' | 'held') {
  const found = what === 'missed' ? r.next((fate) => fate === MISSED) : r.nextHeld()
  if (!found) notice(what === 'missed' ? 'No wanted event is missed in these days.' : 'No message is held back.')
}
</script>

<template>
  <div class="tools">
    <ElInput
      v-model="words"
      size="small"
      placeholder="Find channels, inputs"
      aria-label="Find channels and inputs"
      clearable
      data-field="find"
    />
    <SegmentChoice
      v-model="fates"
      label="Events"
      :ways="[
        ['all', 'All'],
        ['missed', 'Missed'],
        ['low', 'Low'],
        ['unwanted', 'Unwanted'],
        ['alarms', 'Alarms', 'Contacts, buttons, and pictures that are lost or tampered with'],
      ]"
    />
    <button type="button" class="plain-button link" data-test="next-missed" @click="find('missed')">Next missed</button>
    <button type="button" class="plain-button link" data-test="next-event" @click="r.next((fate) => r.shows(fate))">
      Next event
    </button>
    <button
      v-if="data?.messages?.length"
      type="button"
      class="plain-button link"
      data-test="next-held"
      @click="find('held')"
    >
      Next held back
    </button>
    <span class="zoom">
      <button
        type="button"
        class="plain-button"
        aria-label="Look closer"
        data-test="closer"
        @click="r.zoom(2, r.head.value)"
      >
        +
      </button>
      <button type="button" class="plain-button" aria-label="Further away" @click="r.zoom(0.5)">−</button>
      <button type="button" class="plain-button link" @click="r.showAll">all</button>
    </span>
    <span class="legend soft" aria-hidden="true">
      <i class="base" /> base <i class="own" /> its own events <i class="others" /> others’, alarms
      <b class="short">○</b> missed <b>▌</b> kept
    </span>
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 2px 14px 6px;
}

.tools .el-input {
  width: var(--word);
}

.zoom button {
  padding: 0 7px;
  font-size: var(--heading);
}

.legend {
  margin-left: auto;
  font-size: var(--second);
}

.legend i {
  display: inline-block;
  width: 14px;
  height: 9px;
  margin: 0 2px 0 8px;
}

.base {
  border-bottom: 4px solid var(--base);
}

.own {
  background: repeating-linear-gradient(90deg, var(--motion) 0 1.2px, transparent 1.2px 4px);
  border-top: 1.5px solid var(--motion);
}

.others {
  background: repeating-linear-gradient(115deg, var(--alarm) 0 1.2px, transparent 1.2px 4px);
  border-top: 1.5px solid var(--alarm);
}
</style>
