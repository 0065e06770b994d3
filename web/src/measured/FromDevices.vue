<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { notice } from '../ui/notice'
import { moment } from '../time/dates'

/** What recorders told when they were read: their oldest footage, and settings that differ. */
const site = useSite()
const { data } = useAnswer(
  () => [site.planId, site.handed],
  () => (site.planId ? api.GET('/api/plans/{id}/devices', { params: site.here }) : undefined),
  { keep: true },
)
const read = computed(() => (data.value?.devices ?? []).filter((d) => d.readAt))
const name = (d: (typeof read.value)[number]) =>
  site.plan?.recorders.find((r) => r.id === d.recorder)?.name ??
  site.plan?.channels.find((c) => c.id === d.channel)?.name ??
  d.address
const at = ref('')
async function bring(id: string) {
  at.value = id
  const told = await ask(
    api.POST('/api/plans/{id}/devices/{device}/found', {
      params: { path: { ...site.here.path, device: id }, header: {} },
    }),
  )
  at.value = ''
  if (told.problem) notice(told.problem, { error: true, seconds: 8 })
  else site.handed++
}
</script>

<template>
  <div v-if="read.length" class="from" data-test="from-devices">
    <p>or take what devices told:</p>
    <p v-for="d in read" :key="d.id">
      <button type="button" class="act quiet" :disabled="!!at" @click="bring(d.id)">{{ name(d) }}</button>
      <span class="soft">read {{ moment(d.readAt!) }}</span>
    </p>
  </div>
</template>

<style scoped>
.from {
  margin-top: 12px;
}

p {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
</style>
