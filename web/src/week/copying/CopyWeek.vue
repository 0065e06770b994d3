<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'

import type { Channel } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { useCopy } from './useCopy'

/** Gives the week of one channel to others: one, its group, or all. */
const props = defineProps<{ channel: Channel }>()
const site = useSite()
const others = computed(() => (site.plan?.channels ?? []).filter((c) => c.id !== props.channel.id && !c.noCamera))
const group = computed(() => others.value.filter((c) => props.channel.group && c.group === props.channel.group))

const copy = useCopy()
const onto = (to: string[]) => copy.week(props.channel.id, to, 'Click to give it.')
/** What it would change is counted as soon as it is pointed at. */
const consider = (to: string[]) => copy.consider(onto(to))
const leave = (open: boolean) => open || copy.consider(undefined)
</script>

<template>
  <ElDropdown
    trigger="click"
    max-height="320"
    :persistent="false"
    @command="(to: string[]) => copy.doIt(onto(to))"
    @visible-change="leave"
  >
    <button type="button" class="copy" data-test="copy-week">Give its week to…</button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem
          v-if="group.length"
          :command="group.map((c) => c.id)"
          @mouseenter="consider(group.map((c) => c.id))"
          @focus="consider(group.map((c) => c.id))"
          >the other {{ count(group.length, 'channel') }} of {{ channel.group }}</ElDropdownItem
        >
        <ElDropdownItem
          :command="others.map((c) => c.id)"
          @mouseenter="consider(others.map((c) => c.id))"
          @focus="consider(others.map((c) => c.id))"
          >all other {{ count(others.length, 'channel') }}</ElDropdownItem
        >
        <ElDropdownItem
          v-for="(c, i) in others"
          :key="c.id"
          :command="[c.id]"
          :divided="i === 0"
          @mouseenter="consider([c.id])"
          @focus="consider([c.id])"
          >{{ c.number }} {{ c.name }}</ElDropdownItem
        >
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.copy {
  margin-top: 4px;
  height: var(--field);
  padding: 0 9px;
  background: none;
  border: 1px solid var(--rule);
  border-radius: 4px;
  cursor: pointer;
}

.copy:hover {
  border-color: var(--base);
}
</style>
