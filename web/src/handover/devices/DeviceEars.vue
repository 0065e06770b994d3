<script setup lang="ts">
import { onBeforeUnmount, ref } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import type { DeviceAt, HeardAt } from '../../api/types'
import { useSite } from '../../site/useSite'
import { notice } from '../../ui/notice'

/** What a device notices, as it does, for as long as somebody looks; and kept as an event log. */
const props = defineProps<{ device: DeviceAt }>()
const site = useSite()
const on = ref(false)
const ready = ref(false) // whether nothing is missed any more
const heard = ref<HeardAt[]>([]) // newest first
const why = ref('')
const since = ref<Date>()
let source: EventSource | undefined
const most = 500

function listen() {
  why.value = ''
  since.value ??= new Date()
  on.value = true
  source = new EventSource(
    `/api/plans/${encodeURIComponent(site.planId)}/devices/${encodeURIComponent(props.device.id)}/listen`,
  )
  source.addEventListener('listening', () => (ready.value = true))
  source.onerror = () => (ready.value = false) // the browser asks again by itself
  source.addEventListener('heard', (e) => {
    heard.value = [JSON.parse(e.data) as HeardAt, ...heard.value].slice(0, most)
  })
  source.addEventListener('nothing', (e) => {
    why.value = (JSON.parse(e.data) as { why: string }).why
    stop()
  })
}
function stop() {
  source?.close()
  source = undefined
  on.value = ready.value = false
}
onBeforeUnmount(stop)

const kinds: Record<string, [string, string]> = {
  motion: ['moves', 'is still again'],
  alarm: ['triggers', 'is at rest again'],
  lost: ['has no picture', 'has its picture again'],
}
const words = (h: HeardAt) => kinds[h.kind]?.[h.on ? 0 : 1] ?? h.kind
const clock = (at: string) => new Date(at).toLocaleTimeString('en-GB')

/** What was heard as a log: every begin with its end. */
function log(): string {
  const lines = ['start,end,channel']
  const open = new Map<string, string>()
  for (const h of [...heard.value].reverse()) {
    if (h.first || h.kind !== 'motion' || !h.channel) continue
    if (h.on) open.set(h.channel, h.at)
    else if (open.has(h.channel)) {
      lines.push(`${open.get(h.channel)},${h.at},"${h.name.replaceAll('"', '""')}"`)
      open.delete(h.channel)
    }
  }
  return lines.join('\n') + '\n'
}
async function keep() {
  const text = log()
  const told = await ask(
    api.POST('/api/plans/{id}/measured', {
      params: {
        ...site.here,
        query: { as: 'triggers', name: `heard ${since.value?.toISOString().slice(0, 16).replace('T', ' ') ?? ''}` },
        header: {},
      },
      body: text as unknown as string,
      bodySerializer: (b) => new Blob([b as unknown as string]),
    }),
  )
  notice(told.problem || 'Kept as an event log: it stands on Measured.', { error: !!told.problem, seconds: 8 })
}
</script>

<template>
  <div data-test="ears">
    <p>
      <button v-if="!on" type="button" class="act quiet" data-test="listen" @click="listen">Listen</button>
      <button v-else type="button" class="act quiet" @click="stop">Stop listening</button>
      <button
        v-if="heard.some((h) => !h.first && !h.on && h.kind === 'motion') && site.role === 'planner'"
        type="button"
        class="act quiet"
        data-test="keep-heard"
        @click="keep"
      >
        Keep as an event log
      </button>
    </p>
    <p v-if="why" class="short" role="alert">{{ why }}</p>
    <p v-else-if="on && !heard.some((h) => !h.first)" class="soft" role="status">
      {{ ready ? 'Listening. Walk before a camera, or open a door.' : 'Asking the device to tell…' }}
    </p>
    <ol v-if="heard.some((h) => !h.first)" data-test="heard">
      <li v-for="(h, i) in heard.filter((h) => !h.first)" :key="heard.length - i">
        <span class="soft">{{ clock(h.at) }}</span> {{ h.name }} {{ words(h) }}
      </li>
    </ol>
  </div>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 4px 0;
  padding: 0;
  max-height: 220px;
  overflow: auto;
}

p {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 4px 0;
}
</style>
