<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'

import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import { useSharedWeeks } from './useSharedWeeks'

const shared = useSharedWeeks()
const site = useSite()
const names = (ids: string[]) => ids.map((id) => site.channels.get(id)?.name ?? id).join(', ')
</script>

<template>
  <ElDialog :model-value="!!shared.question" title="These channels follow a named week" width="480" @close="shared.question?.answer(undefined)">
    <template v-if="shared.question">
      <p><b>{{ names(shared.question.channels) }}</b> {{ shared.question.channels.length === 1 ? 'follows' : 'follow' }} the week “{{ shared.question.name }}”, as do {{ count(shared.question.followers.length - shared.question.channels.length, 'other channel') }}.</p>
    </template>
    <template #footer>
      <ElButton @click="shared.question?.answer(undefined)">Do not paint</ElButton>
      <ElButton data-test="paint-week" @click="shared.question?.answer('week')">Paint the week, for all {{ shared.question?.followers.length }}</ElButton>
      <ElButton type="primary" data-test="paint-own" @click="shared.question?.answer('own')">Only {{ count(shared.question?.channels.length ?? 0, 'channel') }}, on {{ shared.question?.channels.length === 1 ? 'its' : 'their' }} own</ElButton>
    </template>
  </ElDialog>
</template>
