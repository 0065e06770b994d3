<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { useSharedWeeks, type Following } from './useSharedWeeks'

const shared = useSharedWeeks()
const site = useSite()
const weeks = computed(() => shared.question?.weeks ?? [])
const channels = computed(() => weeks.value.flatMap((w) => w.channels))
const followers = computed(() => weeks.value.flatMap((w) => w.followers))
const quoted = computed(() => weeks.value.map((w) => `“${w.name}”`).join(' and '))
const fresh = computed(() => weeks.value.map((w) => `“${shared.newName(w)}”`).join(' and '))
const names = (ids: string[]) =>
  ids
    .slice(0, 6)
    .map((id) => site.channels.get(id)?.name ?? id)
    .join(', ') + (ids.length > 6 ? ` and ${ids.length - 6} more` : '')

/** Who else follows a week, in words; nothing where nobody does. */
function others(w: Following) {
  const n = w.followers.length - w.channels.length
  return n ? `, as ${n === 1 ? 'does 1 other channel' : `do ${n} other channels`}` : ''
}
const only = computed(() =>
  channels.value.length === 1
    ? `Only this one (it stops following ${quoted.value})`
    : `Only these ${channels.value.length} (they stop following ${quoted.value})`,
)
</script>

<template>
  <ElDialog
    :model-value="!!shared.question"
    title="Channels that follow a named week"
    width="520"
    class="wide-buttons"
    @close="shared.question?.answer(undefined)"
  >
    <p v-for="w in weeks" :key="w.week">
      <b>{{ names(w.channels) }}</b> {{ w.channels.length === 1 ? 'follows' : 'follow' }} the week “{{ w.name }}”{{
        others(w)
      }}.
    </p>
    <template #footer>
      <ElButton type="primary" data-test="paint-own" @click="shared.question?.answer('own')">{{ only }}</ElButton>
      <ElButton data-test="paint-new" @click="shared.question?.answer('new')"
        >As a new named week, {{ fresh }}</ElButton
      >
      <ElButton data-test="paint-week" @click="shared.question?.answer('week')"
        >Paint the week, for all {{ followers.length }}</ElButton
      >
      <ElButton @click="shared.question?.answer(undefined)">Cancel</ElButton>
    </template>
  </ElDialog>
</template>
