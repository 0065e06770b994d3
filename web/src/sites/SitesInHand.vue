<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import { roleAt } from '../api/session'
import type { SiteLine } from '../api/types'
import { count } from '../ui/figures'
import { later } from '../ui/later'
import { notice } from '../ui/notice'
import { stageName, stages, type Stage } from './useSiteQuery'

/** What can be done with several sites at once. */
/** changed is called, not emitted: what is taken back comes when nothing is chosen any more, and this is gone. */
const props = defineProps<{ sites: SiteLine[]; changed: () => void }>()
const emit = defineEmits<{ none: [] }>()
const FoundAtSites = later(() => import('./FoundAtSites.vue'))

const ids = computed(() => props.sites.map((s) => s.id))
const plans = computed(() => ids.value.every((id) => roleAt(id) === 'planner'))
const tags = computed(() => [...new Set(props.sites.flatMap((s) => s.tags))].sort())
const away = computed(() => props.sites.every((s) => s.archived))
const words = computed(() => count(props.sites.length, 'site'))
const failure = ref('')
const busy = ref(false)
const tag = ref('')
const place = ref('')

type Marks = { stage?: Stage; place?: string; tag?: string[]; untag?: string[]; archived?: boolean }
async function mark(marks: Marks, sites = ids.value): Promise<boolean> {
  busy.value = true
  const told = await ask(api.POST('/api/sites/mark', { body: { sites, ...marks } }))
  busy.value = false
  failure.value = told.problem && `${told.problem}${/[Nn]othing was/.test(told.problem) ? '' : ' Nothing was changed.'}`
  if (!told.problem) props.changed()
  return !told.problem
}

async function addTag() {
  const list = tag.value
    .split(',')
    .map((t) => t.trim())
    .filter(Boolean)
  if (list.length && (await mark({ tag: list }))) tag.value = ''
}

async function setPlace() {
  if (await mark({ place: place.value })) place.value = ''
}

async function setStage(e: Event) {
  const list = e.target as HTMLSelectElement
  const stage = list.value as Stage
  list.value = ''
  if (stage) await mark({ stage })
}

async function archive() {
  const sites = ids.value
  const archived = !away.value
  const said = `${words.value} ${archived ? 'archived' : 'restored'}.`
  if (await mark({ archived }))
    void notice(said, { seconds: 8, act: { label: 'Undo', run: () => void mark({ archived: !archived }, sites) } })
}

async function exportAll() {
  busy.value = true
  const told = await ask(api.POST('/api/sites/export', { body: { sites: ids.value }, parseAs: 'blob' }))
  busy.value = false
  failure.value = told.problem
  if (!told.data) return
  const link = document.createElement('a')
  link.href = URL.createObjectURL(told.data as unknown as Blob)
  link.download = `${props.sites.length}-plans.zip`
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}

const checked = ref<string[]>()
</script>

<template>
  <section class="hand" aria-label="Chosen sites" :aria-busy="busy" data-test="in-hand">
    <b role="status">{{ words }} chosen</b>
    <template v-if="plans">
      <form @submit.prevent="addTag">
        <input v-model="tag" aria-label="Tags to add" placeholder="Tags, with commas" data-test="tag" />
        <button class="act quiet" :disabled="!tag.trim() || busy" data-test="add-tag">Tag</button>
      </form>
      <button
        v-for="t in tags"
        :key="t"
        type="button"
        class="plain-button tag"
        :aria-label="`Take the tag ${t} away`"
        :disabled="busy"
        @click="mark({ untag: [t] })"
      >
        {{ t }} ×
      </button>
      <form @submit.prevent="setPlace">
        <input v-model="place" aria-label="Place" maxlength="200" placeholder="Place" data-test="place" />
        <button class="act quiet" :disabled="busy" data-test="set-place">Set</button>
      </form>
      <select aria-label="How far they have come" :disabled="busy" data-test="set-stage" @change="setStage">
        <option value="">How far…</option>
        <option v-for="s in stages" :key="s.id" :value="s.id">{{ stageName(s.id) }}</option>
      </select>
    </template>
    <span v-else class="soft">Only who plans all of them marks them.</span>
    <span class="right">
      <button
        type="button"
        class="act quiet"
        aria-haspopup="dialog"
        :disabled="busy"
        data-test="check"
        @click="checked = ids"
      >
        What is found
      </button>
      <button type="button" class="act quiet" :disabled="busy" data-test="export-sites" @click="exportAll">
        Export
      </button>
      <button v-if="plans" type="button" class="act quiet" :disabled="busy" data-test="archive-sites" @click="archive">
        {{ away ? 'Restore' : 'Archive' }}
      </button>
      <button type="button" class="plain-button none" data-test="choose-none" @click="emit('none')">Choose none</button>
    </span>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <FoundAtSites v-if="checked" :sites="checked" @close="checked = undefined" />
  </section>
</template>

<style scoped>
.hand {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  background: var(--band);
  border-radius: 6px;
  padding: 8px 12px;
}

form {
  display: flex;
  gap: 4px;
}

.tag,
.none {
  color: var(--base);
}

.right {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

p {
  flex-basis: 100%;
  margin: 0;
}
</style>
