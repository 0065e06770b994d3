<script setup lang="ts">
import { until } from '@vueuse/core'
import { ElSkeleton } from 'element-plus'
import { computed, onUnmounted, watch } from 'vue'
import { onBeforeRouteLeave, onBeforeRouteUpdate, useRoute } from 'vue-router'

import { useSharedWeeks } from '../hand/useSharedWeeks'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import { later, nothing, shown } from '../ui/later'
import { notice } from '../ui/notice'
import { useOnce } from '../ui/useOnce'
import StepRail from './StepRail.vue'
import TopBar from './TopBar.vue'
import { useShortcuts } from './useShortcuts'
import { useTitles } from './useTitles'
import VerdictBar from './VerdictBar.vue'

const props = defineProps<{ id: string }>()
const site = useSite()
const shared = useSharedWeeks()

const ReadingStrip = later(() => import('./ReadingStrip.vue'))
const RemovedStrip = later(async () => (await import('./reserve')).RemovedStrip)
const AwayStrip = later(async () => (await import('./reserve')).AwayStrip)
const ConflictNotice = later(async () => (await import('./reserve')).ConflictNotice)
const SetAside = later(async () => (await import('./reserve')).SetAside)
const SharedWeekQuestion = later(async () => (await import('./reserve')).SharedWeekQuestion)
const Copying = later(async () => (await import('./reserve')).Copying, nothing)
const UnreadableSite = later(async () => (await import('./reserve')).UnreadableSite)
const removed = computed(() => site.variants.some((v) => v.id === site.planId && v.removed))
const conflicted = useOnce(() => !!site.conflict)
const asked = useOnce(() => !!shared.question)

/** Changes on their way belong to this site, so it is not left before they have arrived. */
async function stay(): Promise<boolean> {
  await until(() => site.waiting.length).toBe(0, { timeout: 2000 })
  if (!site.waiting.length) return true
  notice(
    `${count(site.waiting.length, 'change')} cannot be saved now, and would be gone if you left this site. They are tried again all the time.`,
    { error: true, seconds: 6 },
  )
  return false
}
onBeforeRouteLeave(stay)
onBeforeRouteUpdate((to, from) => (to.params.id === props.id && to.query.variant === from.query.variant) || stay())

const route = useRoute()
watch([() => props.id, () => String(route.query.variant ?? '')], ([id, variant]) => void site.open(id, variant), {
  immediate: true,
})
watch(
  () => !!site.plan || !!site.failure,
  (is) => is && shown(),
)
onUnmounted(() => site.close())
useShortcuts()
useTitles()
</script>

<template>
  <div class="shell" :class="{ stale: site.state === 'away' }">
    <TopBar />
    <AwayStrip v-if="site.away" />
    <RemovedStrip v-if="removed" />
    <ReadingStrip v-if="site.plan && site.role !== 'planner'" />
    <SetAside v-if="site.aside.length" />
    <VerdictBar v-if="site.plan" />
    <div v-if="site.plan" class="body">
      <StepRail />
      <main class="page" :data-page="$route.name"><RouterView /></main>
    </div>
    <main v-else-if="site.failure" class="failure">
      <h1>This site cannot be shown</h1>
      <p>{{ site.failure }}<template v-if="!site.unreadable"> Nothing is lost.</template></p>
      <UnreadableSite v-if="site.unreadable" />
      <p>
        <button class="again" type="button" @click="site.reload()">Try again</button> or go to
        <RouterLink to="/">all sites</RouterLink>.
      </p>
    </main>
    <main v-else class="opening" aria-busy="true" aria-label="The site is being opened">
      <ElSkeleton :rows="1" animated />
      <ElSkeleton :rows="12" animated />
    </main>
    <Copying v-if="site.plan" />
    <section aria-label="Questions">
      <ConflictNotice v-if="conflicted" />
      <SharedWeekQuestion v-if="asked" />
    </section>
  </div>
</template>

<style scoped>
.shell {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.body {
  flex: 1;
  display: grid;
  grid-template-columns: 94px minmax(0, 1fr);
  min-height: 0;
}

.page {
  min-width: 0;
  min-height: 0;
}

.opening {
  padding: 14px 18px;
}

.failure {
  padding: 64px;
  overflow: auto;
}

.again {
  background: var(--base);
  color: var(--on-base);
  border: 0;
  border-radius: 4px;
  padding: 4px 12px;
  cursor: pointer;
}

@media (min-width: 501px) and (max-width: 1000px) {
  .body {
    grid-template-columns: 78px minmax(0, 1fr);
  }
}

@media (max-width: 500px) {
  .body {
    grid-template: minmax(0, 1fr) auto / minmax(0, 1fr);
  }

  .body > :deep(.rail) {
    order: 2;
  }
}
</style>
