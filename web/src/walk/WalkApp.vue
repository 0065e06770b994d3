<script setup lang="ts">
import { computed, onMounted, watch } from 'vue'

import { me, signedOut } from '../api/session'
import { onlyOf } from '../along/store'
import SignInForm from '../forms/SignInForm.vue'
import { useTheme } from '../theme/useTheme'
import CameraList from './CameraList.vue'
import CameraPage from './CameraPage.vue'
import ClockForm from './ClockForm.vue'
import FinishForm from './FinishForm.vue'
import FootageForm from './FootageForm.vue'
import MorePage from './MorePage.vue'
import RunningPage from './RunningPage.vue'
import SiteList from './SiteList.vue'
import StepList from './StepList.vue'
import TopLine from './TopLine.vue'
import TrialForm from './TrialForm.vue'
import TrialList from './TrialList.vue'
import { useNewer } from './useNewer'
import { useTaken } from './useTaken'
import { useWaiting } from './useWaiting'
import { addressOf, planHere, useView } from './view'

/** What a fitter has on the phone: the walk test and the sheets of a site that was taken along. */
const view = useView()
const { taken, going, failure, load, take, renew } = useTaken()
const { arrived } = useWaiting()
useTheme()
useNewer()

const shown = computed(
  () =>
    ({
      list: CameraList,
      camera: CameraPage,
      run: RunningPage,
      footage: FootageForm,
      clock: ClockForm,
      trials: TrialList,
      trial: TrialForm,
      steps: StepList,
      finish: FinishForm,
      more: MorePage,
    })[view.name.value === 'run' && !runs.value ? 'camera' : view.name.value] ?? CameraList,
)
/** A walk that is not there is not begun: its camera says what there is. */
const runs = computed(() => {
  const [channel, walk] = view.about.value
  return taken.value?.test.cameras.some((c) => c.channel === channel && c.walks.some((w) => w.id === walk))
})
const tabs = [
  ['list', 'Walks'],
  ['trials', 'Trials'],
  ['steps', 'Sheets'],
  ['finish', 'Finish'],
  ['more', 'More'],
] as const

onMounted(async () => {
  await load(planHere)
  if (planHere && !taken.value && !signedOut.value) await take(planHere)
  else await renew()
})
// What arrived is answered with what others saw meanwhile.
watch(arrived, () => void renew())
// Who came in may see what is theirs: what somebody else took along goes, what waits stays.
watch(
  () => me.value?.here && me.value.id,
  async (now, before) => {
    if (!now) return
    await onlyOf(me.value!.accounts ? me.value!.id : '')
    await load(planHere)
    if (planHere && (!taken.value || before === false)) await take(planHere)
  },
)
</script>

<template>
  <div class="walk" :class="{ running: view.name.value === 'run' }">
    <template v-if="signedOut">
      <header class="top"><h1>Wakefield on site</h1></header>
      <main>
        <p>You are signed out. What waits is kept here, and sent when somebody signs in.</p>
        <SignInForm />
      </main>
    </template>
    <template v-else-if="!planHere"><SiteList /></template>
    <template v-else>
      <TopLine v-if="view.name.value !== 'run'" />
      <main v-if="going" aria-live="polite">
        <p data-test="going">{{ going.words }}</p>
        <progress :value="going.share" max="1" aria-label="Taking along" />
      </main>
      <main v-else-if="!taken">
        <h2>Not taken along yet</h2>
        <p v-if="failure" role="alert" class="short">{{ failure }}</p>
        <p v-else>Walks, steps and pictures of this site are not on this phone.</p>
        <button type="button" class="big filled" data-test="take" @click="take(planHere)">Take along</button>
      </main>
      <component :is="shown" v-else :key="view.name.value + view.about.value.join('/')" />
      <nav v-if="taken && !going && view.name.value !== 'run'" class="tabs" aria-label="Pages">
        <a
          v-for="[name, title] in tabs"
          :key="name"
          :href="addressOf(name)"
          :aria-current="view.name.value === name ? 'page' : undefined"
          >{{ title }}</a
        >
      </nav>
    </template>
  </div>
</template>

<style>
.walk .top {
  padding: 12px 16px;
  border-bottom: 1px solid var(--rule);
}

.tabs {
  position: fixed;
  inset: auto 0 0;
  display: flex;
  justify-content: center;
  background: var(--sheet);
  border-top: 1px solid var(--rule);
  padding-bottom: env(safe-area-inset-bottom);
}

.tabs a {
  flex: 1;
  max-width: 128px;
  min-height: 56px;
  display: grid;
  place-items: center;
  text-decoration: none;
  color: var(--soft);
}

.tabs a[aria-current] {
  color: var(--base);
  font-weight: 600;
  box-shadow: inset 0 3px var(--base);
}

.walk progress {
  width: 100%;
  height: 12px;
}
</style>
