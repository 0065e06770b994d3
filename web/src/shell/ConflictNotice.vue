<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'

const site = useSite()
const { data: differs } = useAnswer(
  () => site.conflict,
  () =>
    site.conflict && site.conflict.on > 0
      ? api.GET('/api/plans/{id}/revisions/{number}/differences', {
          params: { path: { id: site.planId, number: site.conflict.on } },
        })
      : undefined,
)
const open = computed({ get: () => !!site.conflict, set: (v) => v || (site.conflict = undefined) })
</script>

<template>
  <ElDialog v-model="open" title="Somebody else changed this plan" width="460" data-test="conflict">
    <p>Your last change was made on an older version, so it was not saved. You now see the plan as it stands, with:</p>
    <p v-if="site.conflict?.more" class="soft">{{ count(site.conflict.more, 'earlier change') }}, and then:</p>
    <ul>
      <li v-for="r in site.conflict?.since" :key="r.number">
        {{ r.sentence }} <span class="soft">({{ r.author }})</span>
      </li>
    </ul>
    <template v-if="differs?.length">
      <p>What is otherwise now than where your change began:</p>
      <ul data-test="since-differs">
        <li v-for="(d, i) in differs.slice(0, 12)" :key="i">
          <b>{{ d.who }}</b>: {{ d.words }}
        </li>
        <li v-if="differs.length > 12" class="soft">and {{ differs.length - 12 }} more</li>
      </ul>
    </template>
    <template #footer>
      <ElButton @click="open = false">Use theirs</ElButton>
      <ElButton type="primary" data-test="again" @click="site.tryAgain()">Apply mine</ElButton>
    </template>
  </ElDialog>
</template>
