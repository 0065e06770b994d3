<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'

import { api } from '../api/client'
import { isPlanner } from '../api/session'
import type { SiteLine } from '../api/types'
import TopBar from '../shell/TopBar.vue'
import FilePick from '../ui/FilePick.vue'
import { count, whole } from '../ui/figures'
import { later } from '../ui/later'
import SiteFilters from './SiteFilters.vue'
import SiteTable from './SiteTable.vue'
import { useSiteQuery } from './useSiteQuery'
import { useSites } from './useSites'

const SiteHits = later(async () => (await import('./reserve')).SiteHits)
const SitesInHand = later(async () => (await import('./reserve')).SitesInHand)
const MovedSites = later(async () => (await import('./reserve')).MovedSites)
const SitesGlance = later(async () => (await import('./reserve')).SitesGlance)
const KeptSearches = later(async () => (await import('./reserve')).KeptSearches)

const { sites, failure, load, act, duplicate, importPlan } = useSites()
const { asked, set, show, away, shown, customers, places, tags, narrowed } = useSiteQuery(sites)
const router = useRouter()
useTitle('Sites · Wakefield')

const picked = ref<string[]>([])
const inHand = computed(() => (sites.value ?? []).filter((s) => picked.value.includes(s.id)))
watch(shown, (now) => {
  const there = new Set(now.map((s) => s.id))
  if (picked.value.some((id) => !there.has(id))) picked.value = picked.value.filter((id) => there.has(id))
})

async function importFile(file: File) {
  const id = await importPlan(file)
  if (id) await router.push(`/sites/${id}`)
}

const archive = (s: SiteLine) =>
  act(
    api.POST('/api/sites/{id}/archive', { params: { path: { id: s.id } }, body: { archived: !s.archived } }),
    `${s.name} is where it was.`,
  )
const few = computed(() => shown.value.length > 0 && shown.value.length <= 4)
const put = computed(() => (sites.value ?? []).filter((s) => s.archived).length)
const typed = (e: Event) => set({ text: (e.target as HTMLInputElement).value || undefined })
onMounted(load)
</script>

<template>
  <div class="sites">
    <TopBar />
    <main>
      <div class="head">
        <h1>Sites</h1>
        <input
          v-if="sites?.length !== 0"
          :value="asked.text ?? ''"
          type="search"
          placeholder="Find a site, channel, address, finding"
          aria-label="Find a site, channel, address, finding"
          data-test="search"
          @input="typed"
        />
        <span v-if="sites?.length" class="soft" role="status" data-test="how-many">{{
          narrowed ? `${whole(shown.length)} of ${count(sites.length, 'site')}` : count(shown.length, 'site')
        }}</span>
        <span class="right">
          <button
            v-if="put || away"
            type="button"
            class="plain-button link"
            data-test="archived"
            @click="set({ stage: away ? undefined : 'away' })"
          >
            {{ away ? 'Sites in work' : `${count(put, 'archived site')}` }}
          </button>
          <RouterLink v-if="isPlanner && sites?.length !== 0" to="/figures" class="link" data-test="to-figures"
            >All added up</RouterLink
          >
          <FilePick
            v-if="isPlanner"
            label="Import a plan file"
            accept=".json,.zip,application/json,application/zip"
            data-test="picker"
            @pick="importFile"
          />
          <RouterLink v-if="isPlanner" to="/new" class="act" data-test="new-site">New site</RouterLink>
        </span>
      </div>
      <p v-if="failure" class="short" role="alert" data-test="import-failure">
        {{ failure }} <button v-if="!sites" type="button" @click="load">Try again</button>
      </p>
      <p v-if="sites && !sites.length && !isPlanner" data-test="no-role">
        You have no role at any site yet. A planner of your company gives you one.
      </p>
      <p v-else-if="sites && !sites.length">
        There is no site yet. <RouterLink to="/new">Describe one</RouterLink>: two minutes lead to a first verdict. Or
        import a plan file.
      </p>
      <template v-else-if="sites">
        <SiteFilters v-bind="{ asked, customers, places, tags, narrowed }" @set="set" @show="show" />
        <KeptSearches v-bind="{ asked, narrowed }" @show="show" />
        <MovedSites />
        <SiteHits v-if="asked.text" :text="asked.text" />
        <SitesInHand v-if="inHand.length" :sites="inHand" :changed="load" @none="picked = []" />
        <p v-if="!shown.length" class="soft" data-test="none-shown">
          {{ asked.text ? `No site is called “${asked.text}”.` : 'No site is like that.' }}
        </p>
        <SiteTable
          v-else
          v-model:picked="picked"
          :class="{ few }"
          :sites="shown"
          @duplicate="duplicate"
          @archive="archive"
        />
        <SitesGlance v-if="few" :sites="shown" />
      </template>
    </main>
  </div>
</template>

<style scoped>
.sites {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}

main {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  padding: 16px max(16px, calc(50% - 900px));
}

main > :deep(.table) {
  flex: 1;
}

main > .few {
  flex: 0 1 auto;
}

p {
  margin: 0;
}

.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}

.right {
  margin-left: auto;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}

.head .act {
  text-decoration: none;
}

h1 {
  margin: 0;
}

input[type='search'] {
  flex: 1;
}

@media (max-width: 760px) {
  main {
    overflow: auto;
    display: block;
  }

  main > * {
    margin-bottom: 8px;
  }

  main > :deep(.table:not(.few)) {
    height: 70vh;
  }
}
</style>
