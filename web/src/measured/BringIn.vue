<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import type { BroughtIn } from '../api/types'
import { useSite } from '../site/useSite'
import FilePick from '../ui/FilePick.vue'
import { count } from '../ui/figures'
import { notice } from '../ui/notice'
import { dateWords } from '../time/dates'
import FoundImport from './FoundImport.vue'
import FromDevices from './FromDevices.vue'

/** What was brought in, and what else is: dropped, chosen, pasted or typed. */
defineProps<{ brought: BroughtIn[]; asking: boolean }>()
const site = useSite()
const waiting = ref<File[]>([]) // files that were not looked at yet, the first one shown
const text = ref('')
const over = ref(false)
const inHand = computed(() => waiting.value[0])
const words = {
  triggers: 'event log',
  recordings: 'list of recordings',
  rates: 'bitrates',
  oldest: 'oldest footage',
  settings: 'settings',
}
const may = computed(() => site.role === 'planner')

function add(files: Iterable<File>) {
  waiting.value.push(...files)
}
function drop(event: DragEvent) {
  over.value = false
  if (event.dataTransfer?.files.length && may.value) add(event.dataTransfer.files)
}
function typed() {
  if (text.value.trim()) add([new File([text.value], 'typed by hand', { type: 'text/csv' })])
}
function done(kept: boolean) {
  const file = waiting.value.shift()
  if (kept && file?.name === 'typed by hand') text.value = ''
}
async function takeAway(b: BroughtIn) {
  const told = await ask(
    api.DELETE('/api/plans/{id}/measured/{brought}', {
      params: { path: { id: site.planId, brought: b.id }, header: {} },
    }),
  )
  if (told.problem) notice(`${b.name || words[b.kind]} stays. ${told.problem}`, { error: true, seconds: 8 })
  else {
    site.handed++
    notice(`${b.name || words[b.kind]} was taken away.`, { seconds: 5 })
  }
}
const span = (b: BroughtIn) => (b.from && b.to ? `, ${dateWords(b.from)} to ${dateWords(b.to)}` : '')
</script>

<template>
  <aside class="bring" aria-label="Bring in" data-test="bring-in">
    <h2>Bring in</h2>
    <template v-if="may">
      <div
        class="drop"
        :class="{ over }"
        data-test="drop"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="drop"
      >
        <p>Event logs, lists of recordings, bitrates, oldest footage, settings: drop files here, or</p>
        <FilePick label="choose a file" accept=".csv,.txt,.tsv,.xlsx" @pick="(f) => add([f])">Choose a file</FilePick>
      </div>
      <label class="typed"
        >or type, or paste lines
        <textarea
          v-model="text"
          rows="3"
          maxlength="100000"
          placeholder="channel 3 goes back to 12 Oct"
          data-field="typed-found"
        />
      </label>
      <button type="button" class="act quiet" :disabled="!text.trim()" data-test="read-typed" @click="typed">
        Read it
      </button>
      <FromDevices />
    </template>
    <p v-else class="soft">A planner of this site brings in what was found.</p>
    <h2>Brought in</h2>
    <p v-if="!brought.length" class="soft">Nothing yet.</p>
    <ul data-test="brought">
      <li v-for="b in brought" :key="b.id">
        <b class="name">{{ b.name || words[b.kind] }}</b>
        <span class="soft">
          {{ words[b.kind] }} of {{ count(b.channels, 'channel') }}{{ span(b) }}, by {{ b.author }}</span
        >
        <span v-if="!b.counts" class="soft"> · counts no more: newer ones say the same</span>
        <button
          v-if="may"
          type="button"
          class="plain-button link"
          :aria-label="`Take away ${b.name || words[b.kind]}`"
          @click="takeAway(b)"
        >
          Take away
        </button>
      </li>
    </ul>
    <p v-if="asking" class="soft" role="status">Comparing…</p>
    <FoundImport v-if="inHand" :key="waiting.length + inHand.name" :file="inHand" @done="done" />
  </aside>
</template>

<style scoped>
.bring {
  overflow: auto;
  padding: 12px 16px 30px;
  background: var(--sheet);
  border-left: 1px solid var(--rule);
}

h2 {
  margin: 0 0 6px;
}

h2 ~ h2 {
  margin-top: 18px;
}

.drop {
  border: 1px dashed var(--soft);
  border-radius: 6px;
  padding: 10px 12px;
}

.drop.over {
  background: var(--selected);
}

.drop p {
  margin: 0 0 6px;
}

.typed {
  display: block;
  margin: 10px 0 6px;
}

textarea {
  display: block;
  width: 100%;
  margin-top: 4px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
}

.name {
  display: block;
}

li .link {
  display: block;
  min-height: 24px;
}
</style>
