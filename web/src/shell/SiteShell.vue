<script setup lang="ts">
import { watch } from 'vue'

import { useSite } from '../site/useSite'
import ConflictNotice from './ConflictNotice.vue'
import StepRail from './StepRail.vue'
import TopBar from './TopBar.vue'
import { useShortcuts } from './useShortcuts'
import VerdictBar from './VerdictBar.vue'

const props = defineProps<{ id: string }>()
const site = useSite()

watch(() => props.id, (id) => void site.open(id), { immediate: true })
useShortcuts()
</script>

<template>
  <div class="shell">
    <TopBar />
    <VerdictBar v-if="site.plan" />
    <div v-if="site.plan" class="body">
      <StepRail />
      <main class="page"><RouterView /></main>
    </div>
    <main v-else-if="site.failure" class="failure">
      <h1>This site cannot be shown</h1>
      <p>{{ site.failure }} Nothing is lost.</p>
      <p><button class="again" type="button" @click="site.reload()">Try again</button> or go to <RouterLink to="/">all sites</RouterLink>.</p>
    </main>
    <ConflictNotice />
  </div>
</template>

<style scoped>
.shell {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  height: 100vh;
}

.body {
  display: grid;
  grid-template-columns: 94px minmax(0, 1fr);
  min-height: 0;
}

.page {
  min-width: 0;
  min-height: 0;
}

.failure {
  padding: 64px;
}

.again {
  background: var(--base);
  color: var(--on-base);
  border: 0;
  border-radius: 5px;
  padding: 4px 12px;
  cursor: pointer;
}
</style>
