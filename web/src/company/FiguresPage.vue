<script setup lang="ts">
import { useTimeoutFn, useTitle } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import TopBar from '../shell/TopBar.vue'
import { fileOf, share } from './figureFile'
import FoundByRule from './FoundByRule.vue'
import ForCustomers from './ForCustomers.vue'
import { count, gigabytes, whole } from '../ui/figures'

/** What the company has planned altogether. */
useTitle('All added up · Wakefield')
const round = ref(0)
const { data, failure } = useAnswer(
  () => round.value,
  () => api.GET('/api/company/figures'),
  { keep: true },
)
/** While sites are being estimated, what they add up to is asked for again. */
const { start } = useTimeoutFn(() => round.value++, 2000, { immediate: false })
watch(data, () => data.value?.left && start())
const most = computed(() => Math.max(1, ...(data.value?.kept ?? []).map((k) => k.sites)))

const file = computed(() => (data.value ? fileOf(data.value) : ''))
</script>

<template>
  <div class="company">
    <TopBar />
    <main>
      <div class="head">
        <h1>All added up</h1>
        <RouterLink to="/">All sites</RouterLink>
        <a v-if="data?.sites" :href="file" download="wakefield-figures.csv" class="right" data-test="figures-file"
          >CSV</a
        >
      </div>
      <p v-if="failure" class="short" role="alert">{{ failure }}</p>
      <p v-if="data && !data.sites && !data.left">
        There is no site yet. <RouterLink to="/new">Describe one</RouterLink>, and it is added up here.
      </p>
      <p v-if="data?.left" class="soft" role="status" data-test="figures-left">
        {{ count(data.left, 'site') }} {{ data.left === 1 ? 'is' : 'are' }} not estimated yet, and not among these.
      </p>
      <template v-if="data?.sites">
        <dl class="sums" data-test="sums">
          <div>
            <dt>sites in work</dt>
            <dd>{{ whole(data.sites) }}</dd>
          </div>
          <div>
            <dt>channels with a camera</dt>
            <dd>{{ whole(data.channels) }}</dd>
          </div>
          <div>
            <dt>usable storage planned</dt>
            <dd>{{ gigabytes(data.usableGB) }}</dd>
          </div>
          <div>
            <dt>recorded a day</dt>
            <dd>{{ gigabytes(data.gigabytesPerDay) }}</dd>
          </div>
          <div>
            <dt>of {{ count(data.sites, 'site') }} short of days</dt>
            <dd :class="{ short: data.short }">{{ whole(data.short) }}</dd>
          </div>
        </dl>
        <div class="columns">
          <section class="sheet">
            <h2>Days kept, of those required</h2>
            <table>
              <tbody>
                <tr v-for="k in data.kept" :key="k.fromPercent">
                  <th>{{ share(k) }}</th>
                  <td class="share">
                    <span
                      :style="{ width: `${(100 * k.sites) / most}%` }"
                      :class="{ low: (k.toPercent ?? 200) <= 100 }"
                    />
                  </td>
                  <td class="number">{{ whole(k.sites) }}</td>
                </tr>
                <tr>
                  <th>nothing required</th>
                  <td />
                  <td class="number">{{ whole(data.free) }}</td>
                </tr>
              </tbody>
            </table>
            <h2>Accepted by</h2>
            <table v-if="data.accepted.length">
              <thead>
                <tr>
                  <th>Who</th>
                  <th class="number">Findings</th>
                  <th class="number">Sites</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="a in data.accepted" :key="a.by">
                  <td>{{ a.by }}</td>
                  <td class="number">{{ whole(a.findings) }}</td>
                  <td class="number">{{ whole(a.sites) }}</td>
                </tr>
              </tbody>
            </table>
            <p v-else class="soft">Nobody accepted a finding.</p>
          </section>
          <FoundByRule :found="data.found" />
          <ForCustomers :customers="data.customers" />
        </div>
      </template>
    </main>
  </div>
</template>

<style src="./figures.css" />
<style scoped>
.company {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}

main {
  overflow: auto;
  padding: 16px max(16px, calc(50% - 900px));
}

.head {
  display: flex;
  gap: 16px;
  align-items: baseline;
}

.right {
  margin-left: auto;
}

h1 {
  margin: 0;
}

.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 48px;
  margin: 16px 0;
}

dt {
  font-size: var(--second);
  color: var(--soft);
}

dd {
  margin: 0;
  font-size: var(--figure);
  font-weight: 600;
}

.sums div {
  display: flex;
  flex-direction: column-reverse;
}

.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 380px), 1fr));
  gap: 16px;
  align-items: start;
}

.share {
  width: 50%;
  vertical-align: middle;
}

.share span {
  display: block;
  height: 8px;
  background: var(--ink);
}

.share .low {
  background: var(--short);
}
</style>
