<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'

import { author } from '../api/author'
import { api, inWords } from '../api/client'
import type { Problem, Summary } from '../api/types'
import TopBar from '../shell/TopBar.vue'
import { count } from '../ui/figures'

const sites = ref<Summary[]>()
const failure = ref('')
const router = useRouter()
const picker = ref<HTMLInputElement>()

async function load() {
  failure.value = ''
  try {
    const { data, error } = await api.GET('/api/sites')
    if (data) sites.value = data
    else failure.value = inWords(error as Problem)
  } catch {
    failure.value = 'The server does not answer.'
  }
}

async function importPlan(file?: File) {
  if (!file) return
  failure.value = ''
  try {
    const response = await fetch('/api/sites', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Wakefield-Author': encodeURIComponent(author.value) },
      body: file,
    })
    const answer = await response.json()
    if (response.ok) await router.push(`/sites/${answer.id}`)
    else failure.value = `${file.name}: ${inWords(answer)}. Nothing was imported.`
  } catch {
    failure.value = 'The server does not answer. Nothing was imported.'
  }
  if (picker.value) picker.value.value = ''
}

const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
onMounted(load)
</script>

<template>
  <div class="sites">
    <TopBar />
    <main>
      <header>
        <h1>Sites</h1>
        <input ref="picker" type="file" accept=".json,application/json" aria-label="Plan file" hidden data-test="picker" @change="importPlan(picker?.files?.[0])" />
        <button type="button" class="import" @click="picker?.click()">Import a plan file</button>
      </header>
      <p v-if="failure" class="short" role="alert" data-test="import-failure">{{ failure }} <button v-if="!sites" type="button" @click="load">Try again</button></p>
      <p v-if="sites && !sites.length">There is no site yet. Import a plan file to begin.</p>
      <ul>
        <li v-for="s in sites" :key="s.id">
          <RouterLink :to="`/sites/${s.id}`">
            <b>{{ s.name }}</b> <span class="soft">{{ s.variant }}</span>
            <span class="soft who">{{ s.customer }}</span>
            <span class="number">{{ count(s.channels, 'channel') }}</span>
            <time class="soft" :datetime="s.changed">changed {{ when.format(new Date(s.changed)) }}</time>
          </RouterLink>
        </li>
      </ul>
    </main>
  </div>
</template>

<style scoped>
.sites {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
}

main {
  overflow: auto;
  padding: 28px max(16px, calc(50vw - 480px));
}

header {
  display: flex;
  align-items: center;
  justify-content: space-between;
}

h1 {
  font-size: 22px;
}

.import {
  background: var(--base);
  color: var(--on-base);
  border: 0;
  border-radius: 5px;
  padding: 6px 14px;
  cursor: pointer;
}

ul {
  list-style: none;
  padding: 0;
}

li a {
  display: grid;
  grid-template-columns: 200px 110px minmax(0, 1fr) 90px 210px;
  gap: 12px;
  padding: 12px;
  margin-bottom: 6px;
  text-decoration: none;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
}

li a:hover {
  border-color: var(--base);
}

@media (max-width: 760px) {
  li a {
    grid-template-columns: minmax(0, 1fr) auto;
  }

  .who,
  time {
    grid-column: 1 / -1;
  }
}
</style>
