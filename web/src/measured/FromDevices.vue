<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { useSiteDevices } from '../site/useSiteDevices'
import { notice } from '../ui/notice'
import { moment } from '../time/dates'

/** What recorders tell: when they wrote what, their oldest footage, and settings that differ. */
const site = useSite()
const { list, again, nameOf } = useSiteDevices()
const read = computed(() => list.value.filter((d) => d.readAt))
const at = ref('')
const here = (id: string) => ({ path: { ...site.here.path, device: id }, header: {} })

async function bring(id: string) {
  at.value = id
  const told = await ask(api.POST('/api/plans/{id}/devices/{device}/found', { params: here(id) }))
  at.value = ''
  if (told.problem) notice(told.problem, { error: true, seconds: 8 })
  else site.handed++
}
async function history(id: string) {
  const told = await ask(api.POST('/api/plans/{id}/devices/{device}/history', { params: here(id), body: { days: 42 } }))
  if (told.problem) notice(told.problem, { error: true, seconds: 8 })
  await again()
}
const stop = (id: string) => ask(api.POST('/api/plans/{id}/devices/{device}/stop', { params: here(id) })).then(again)
</script>

<template>
  <div v-if="read.length" class="from" data-test="from-devices">
    <p>or from the devices:</p>
    <div v-for="d in read" :key="d.id">
      <p>
        {{ nameOf(d) }}, <span class="soft">read {{ moment(d.readAt!) }}</span>
      </p>
      <p v-if="d.work?.running">
        <progress :value="d.work.of ? d.work.done : undefined" :max="d.work.of || 1" aria-label="Reading" />
        <span class="soft">{{ d.work.at }}</span>
        <button type="button" class="act quiet" @click="stop(d.id)">Stop</button>
      </p>
      <p v-else>
        <button v-if="d.recorder" type="button" class="act quiet" data-test="history" @click="history(d.id)">
          Recordings of six weeks
        </button>
        <button type="button" class="act quiet" :disabled="!!at" @click="bring(d.id)">Oldest footage, settings</button>
      </p>
      <p v-if="d.work?.what === 'history' && d.work.trouble && !d.work.running" class="short" role="alert">
        {{ d.work.trouble }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.from {
  margin-top: 12px;
}

p {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin: 4px 0;
}
</style>
