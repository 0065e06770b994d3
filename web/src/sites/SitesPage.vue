<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed, onMounted } from 'vue'
import { useRouter } from 'vue-router'

import { isPlanner, roleAt } from '../api/session'
import type { SiteLine } from '../api/types'
import TopBar from '../shell/TopBar.vue'
import DaysBar from '../ui/DaysBar.vue'
import FilePick from '../ui/FilePick.vue'
import { daysInWords, count } from '../ui/figures'
import { useSites } from './useSites'
import { moment } from '../time/dates'

const { sites, failure, search, archived, shown, load, archive, duplicate, importPlan } = useSites()
const router = useRouter()
useTitle('Sites · Wakefield')

async function importFile(file: File) {
  const id = await importPlan(file)
  if (id) await router.push(`/sites/${id}`)
}

type Act = 'duplicate' | 'archive' | 'export' | 'bundle'
function act(command: Act, site: SiteLine) {
  if (command === 'duplicate') void duplicate(site)
  else if (command === 'archive') void archive(site, !site.archived)
  else location.assign(`/api/plans/${site.plan}/${command === 'bundle' ? 'zip' : 'file'}`)
}

const away = computed(() => (sites.value ?? []).filter((s) => s.archived).length)
const isShort = (s: SiteLine) => (s.state?.verdict.shortChannels ?? 0) > 0
onMounted(load)
</script>

<template>
  <div class="sites">
    <TopBar />
    <main>
      <header>
        <h1>Sites</h1>
        <input
          v-if="sites?.length"
          v-model="search"
          type="search"
          placeholder="Find a site"
          aria-label="Find a site"
          data-test="search"
        />
        <span class="right">
          <button
            v-if="away || archived"
            type="button"
            class="plain-button link"
            data-test="archived"
            @click="archived = !archived"
          >
            {{ archived ? 'Sites in work' : `${count(away, 'archived site')}` }}
          </button>
          <FilePick
            v-if="isPlanner"
            label="Import a plan file"
            accept=".json,.zip,application/json,application/zip"
            data-test="picker"
            @pick="importFile"
          />
          <RouterLink v-if="isPlanner" to="/new" class="act" data-test="new-site">New site</RouterLink>
        </span>
      </header>
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
      <p v-else-if="sites && !shown.length" class="soft">
        {{ search ? `No site is called “${search}”.` : 'Nothing here.' }}
      </p>
      <ul>
        <li v-for="s in shown" :key="s.id" :data-site="s.id">
          <RouterLink :to="`/sites/${s.id}`">
            <span
              ><b>{{ s.name }}</b> <span class="soft">{{ s.variant }}</span><br /><span class="soft">{{
                s.customer || 'no customer named'
              }}</span></span
            >
            <span v-if="s.state" class="kept" :class="{ short: isShort(s) }">
              <template v-if="s.state.verdict.keptDays != null"
                ><b>{{ daysInWords(s.state.verdict.keptDays) }}</b
                ><template v-if="s.state.verdict.requiredDays != null">
                  of {{ s.state.verdict.requiredDays }}</template
                ></template
              >
              <template v-else>never overwritten</template>
              <DaysBar
                v-if="s.state.verdict.requiredDays"
                :kept="s.state.verdict.keptDays"
                :required="s.state.verdict.requiredDays"
                :short="isShort(s)"
              />
            </span>
            <span v-else class="soft">{{ s.archived ? '' : 'counting…' }}</span>
            <span v-if="s.state" class="found"
              ><span :class="{ short: s.state.errors > 0 }">{{ count(s.state.errors, 'error') }}</span
              ><br /><span class="soft"
                >{{ count(s.state.warnings, 'warning') }}, {{ count(s.state.hints, 'hint') }}</span
              ></span
            >
            <span v-else />
            <span class="number"
              >{{ count(s.channels, 'channel') }}<br /><time class="soft" :datetime="s.changed">{{
                moment(s.changed)
              }}</time></span
            >
          </RouterLink>
          <ElDropdown trigger="click" placement="bottom-end" @command="(c: Act) => act(c, s)">
            <button type="button" class="plain-button more" :aria-label="`What can be done with ${s.name}`">⋯</button>
            <template #dropdown>
              <ElDropdownMenu>
                <ElDropdownItem v-if="isPlanner" command="duplicate">Duplicate</ElDropdownItem>
                <ElDropdownItem command="export">Export the plan file</ElDropdownItem>
                <ElDropdownItem command="bundle">Export it with its pictures</ElDropdownItem>
                <ElDropdownItem v-if="roleAt(s.id) === 'planner'" command="archive" divided>{{
                  s.archived ? 'Restore' : 'Archive'
                }}</ElDropdownItem>
              </ElDropdownMenu>
            </template>
          </ElDropdown>
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
  padding: 28px max(16px, calc(50vw - 500px));
}

header {
  display: flex;
  align-items: center;
  gap: 24px;
}

.right {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 12px;
}

header .act {
  text-decoration: none;
  padding: 4px 13px;
}

h1 {
  font-size: 22px;
}

input[type='search'] {
  width: 240px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 4px 9px;
}

ul {
  list-style: none;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 34px;
  margin-bottom: 7px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
}

li:hover {
  border-color: var(--base);
}

li a {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 200px 150px 150px;
  gap: 16px;
  align-items: center;
  padding: 10px 6px 10px 14px;
  text-decoration: none;
}

.kept {
  position: relative;
  padding-bottom: 8px;
}

.kept b {
  font-size: 17px;
}

.more {
  width: 34px;
  height: 100%;
  text-align: center;
  font-size: 18px;
}

@media (max-width: 760px) {
  header {
    flex-wrap: wrap;
    gap: 10px;
  }

  li a {
    grid-template-columns: minmax(0, 1fr) auto;
  }
}
</style>
