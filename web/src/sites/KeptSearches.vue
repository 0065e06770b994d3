<script setup lang="ts">
import { nextTick, ref } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import type { components } from '../api/schema'
import { notice } from '../ui/notice'
import type { SiteSearch } from './useSiteQuery'

/** Searches that one comes back to. */
const props = defineProps<{ asked: SiteSearch; narrowed: boolean }>()
const emit = defineEmits<{ show: [search: SiteSearch] }>()
const list = ref<components['schemas']['KeptSearch'][]>([])
const failure = ref('')
const naming = ref(false)
const name = ref('')
const field = ref<HTMLInputElement>()
async function begin() {
  naming.value = true
  await nextTick()
  field.value?.focus()
}

async function load() {
  const told = await ask(api.GET('/api/searches'))
  if (told.data) list.value = told.data
}
void load()

const cleaned = (s: SiteSearch) => JSON.parse(JSON.stringify(s)) as SiteSearch
const same = (s: SiteSearch) => {
  const key = (x: SiteSearch) => JSON.stringify(Object.entries(cleaned(x)).sort())
  return key(s) === key(props.asked)
}

async function keep(as = name.value, search = cleaned(props.asked)) {
  const told = await ask(api.PUT('/api/searches', { body: { name: as, search } }))
  failure.value = told.problem
  if (told.problem) return
  naming.value = false
  name.value = ''
  await load()
}

async function forget(s: components['schemas']['KeptSearch']) {
  const told = await ask(api.DELETE('/api/searches/{name}', { params: { path: { name: s.name } } }))
  failure.value = told.problem
  await load()
  if (!told.problem)
    void notice(`“${s.name}” is forgotten.`, {
      seconds: 8,
      act: { label: 'Undo', run: () => void keep(s.name, s.search) },
    })
}
</script>

<template>
  <div v-if="list.length || narrowed" class="kept-searches" role="group" aria-label="Kept searches">
    <span v-for="s in list" :key="s.name" class="one" :class="{ now: same(s.search) }">
      <button
        type="button"
        class="plain-button"
        :aria-pressed="same(s.search)"
        :data-search="s.name"
        @click="emit('show', s.search)"
      >
        {{ s.name }}
      </button>
      <button type="button" class="plain-button x" :aria-label="`Forget the search ${s.name}`" @click="forget(s)">
        ×
      </button>
    </span>
    <form v-if="naming" @submit.prevent="keep()">
      <input
        ref="field"
        v-model="name"
        maxlength="60"
        aria-label="Name of the search"
        placeholder="Name"
        data-test="search-name"
      />
      <button class="act quiet" :disabled="!name.trim()" data-test="keep-search">Keep</button>
      <button type="button" class="plain-button" @click="naming = false">Cancel</button>
    </form>
    <button
      v-else-if="narrowed && !list.some((s) => same(s.search))"
      type="button"
      class="plain-button"
      data-test="name-search"
      @click="begin"
    >
      Keep this search…
    </button>
    <span v-if="failure" class="short" role="alert">{{ failure }}</span>
  </div>
</template>

<style scoped>
.kept-searches {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}

.one {
  display: flex;
  gap: 6px;
  border: 1px solid var(--soft);
  border-radius: 4px;
  padding: 0 8px;
  height: 24px;
  align-items: center;
}

.one.now {
  background: var(--selected);
}

button:not(.act) {
  color: var(--base);
}

form {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
