<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useInAddress, useNamed } from '../../site/useInAddress'
import { useSite } from '../../site/useSite'
import CopyChannels from './CopyChannels.vue'
import TakeList from './TakeList.vue'

/** What this site takes from another one: from a template of the company, or from any other. */
const site = useSite()
const { data: sites, failure } = useAnswer(
  () => site.id,
  () => api.GET('/api/sites'),
  { keep: true },
)
const others = computed(() => (sites.value ?? []).filter((s) => s.id !== site.id && !s.archived))
const groups = computed(() => [
  { name: 'Templates', list: others.value.filter((s) => s.stage === 'template') },
  { name: 'Sites', list: others.value.filter((s) => s.stage !== 'template') },
])
const from = ref('')
useInAddress('from', from, true)
useNamed('a site', from, () => sites.value && !!chosen.value)
const chosen = computed(() => others.value.find((s) => s.id === from.value))
const choose = (e: Event) => (from.value = (e.target as HTMLSelectElement).value)
const turn = ref(0)
</script>

<template>
  <div class="from">
    <p class="head">
      <label
        >Take from
        <select :value="chosen?.id ?? ''" data-test="from-site" @change="choose">
          <option value="">choose a site</option>
          <template v-for="g in groups" :key="g.name">
            <optgroup v-if="g.list.length" :label="g.name">
              <option v-for="s in g.list" :key="s.id" :value="s.id">
                {{ s.name }}{{ s.customer ? `, ${s.customer}` : '' }}
              </option>
            </optgroup>
          </template>
        </select></label
      >
      <span class="soft">Nothing here changes when that site does.</span>
    </p>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else-if="sites && !others.length" class="soft">
      There is no other site. A site that is marked as a template on <RouterLink to="/">Sites</RouterLink> stands first
      here.
    </p>
    <p v-else-if="!chosen" class="soft">
      Duties, weeks, activities, camera kinds, messages, special days and what recorders take, one by one; and channels
      with all that they name. Mark a site as a <i>template</i> on <RouterLink to="/">Sites</RouterLink>, and it stands
      first here.
    </p>
    <div v-else class="both">
      <TakeList :key="`${chosen.id} ${turn}`" :from="chosen.id" class="sheet" @taken="turn++" />
      <CopyChannels :key="chosen.id" :from="chosen.id" class="sheet" />
    </div>
  </div>
</template>

<style scoped>
.from {
  overflow: auto;
  padding: 16px;
}

.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin: 0 0 16px;
}

.both {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 400px), 1fr));
  gap: 16px;
  align-items: start;
}
</style>
