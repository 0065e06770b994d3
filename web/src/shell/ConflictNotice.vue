<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { count } from '../ui/figures'

const site = useSite()
const open = computed({ get: () => !!site.conflict, set: (v) => v || (site.conflict = undefined) })
</script>

<template>
  <ElDialog v-model="open" title="Somebody else changed this plan" width="460" data-test="conflict">
    <p>Your last change was made on an older version, so it was not kept. You now see the plan as it stands, with:</p>
    <p v-if="site.conflict?.more" class="soft">{{ count(site.conflict.more, 'earlier change') }}, and then:</p>
    <ul>
      <li v-for="r in site.conflict?.since" :key="r.number">
        {{ r.sentence }} <span class="soft">({{ r.author }})</span>
      </li>
    </ul>
    <template #footer>
      <ElButton @click="open = false">Keep theirs</ElButton>
      <ElButton type="primary" data-test="again" @click="site.tryAgain()">Apply mine</ElButton>
    </template>
  </ElDialog>
</template>
