<script setup lang="ts">
import { computed } from 'vue'

import PlanGlance from '../../glance/PlanGlance.vue'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import CameraSeen from './CameraSeen.vue'
import TrialSeen from './TrialSeen.vue'
import WalkSide from './WalkSide.vue'
import { statuses, useWalked } from './useWalked'

/** The walk test at the desk: how far each camera is, what was seen, and what becomes of it. */
const site = useSite()
const { report, failure, about, show, camera, trial, decide } = useWalked()
const order = ['differs', 'again', 'begun', 'open', 'left', 'right', 'none']
const cameras = computed(() =>
  [...(report.value?.cameras ?? [])].sort(
    (a, b) => order.indexOf(a.status) - order.indexOf(b.status) || a.number - b.number,
  ),
)
const trials = computed(() =>
  [...(report.value?.trials ?? [])].sort((a, b) => order.indexOf(a.status) - order.indexOf(b.status)),
)
const walked = (c: (typeof cameras.value)[number]) => {
  const needed = c.walks.filter((w) => !w.optional)
  const done = needed.filter((w) => w.results.some((r) => !r.stale && !r.odd && !r.setAside))
  return `${done.length} of ${needed.length}`
}
</script>

<template>
  <div v-if="report && site.plan" class="walk-part">
    <aside class="left">
      <h1 class="title">Walk test</h1>
      <p class="soft">{{ report.done }} of {{ count(report.all, 'thing') }} as planned, or left with a reason</p>
      <h2>Cameras</h2>
      <ul data-test="walk-cameras">
        <li v-for="c in cameras" :key="c.channel">
          <button type="button" class="plain-button line" :aria-pressed="c.channel === about" @click="show(c.channel)">
            <span class="number">{{ c.number }}</span>
            <span class="name" :title="c.name">{{ c.name }}</span>
            <span :class="c.status === 'differs' ? 'short' : 'soft'">{{
              c.status === 'begun' ? walked(c) : statuses[c.status]
            }}</span>
          </button>
        </li>
      </ul>
      <h2>Trials</h2>
      <ul data-test="walk-trials">
        <li v-for="t in trials" :key="t.id">
          <button type="button" class="plain-button line" :aria-pressed="t.id === about" @click="show(t.id)">
            <span class="number" aria-hidden="true">{{ t.status === 'right' ? '✓' : '' }}</span>
            <span class="name" :title="t.name">{{ t.name }}</span>
            <span :class="t.status === 'differs' ? 'short' : 'soft'">{{
              t.status === 'open' ? 'not tried' : t.status === 'right' ? 'right' : statuses[t.status]
            }}</span>
          </button>
        </li>
      </ul>
    </aside>
    <CameraSeen v-if="camera" :key="camera.channel" class="middle sheet" :camera="camera" :decide="decide" />
    <TrialSeen v-else-if="trial" :key="trial.id" class="middle sheet" :trial="trial" :decide="decide" />
    <section v-else class="middle sheet" aria-label="How it is done">
      <h2>Walked on a phone, looked at here</h2>
      <p v-if="about">“{{ about }}” is not in the plan any more. What was seen of it stands at the right.</p>
      <p>
        A fitter scans the code at the right, takes the site along, and needs no network from then on. Before each
        camera the phone says who walks where and when the sign should come; afterwards it says what is likely wrong.
        Choose a camera to see what was found.
      </p>
      <PlanGlance />
    </section>
    <WalkSide class="right" :report="report" />
  </div>
  <div v-else class="empty">
    <h1 class="title">Walk test</h1>
    <p v-if="failure" role="alert" class="short">{{ failure }}</p>
    <p v-else class="soft">What was walked is being put against the plan…</p>
  </div>
</template>

<style scoped>
.walk-part {
  display: grid;
  grid-template-columns: 264px minmax(0, 1fr) 264px;
  gap: 16px;
  padding: 12px 16px;
  min-height: 0;
}

.left,
.right,
.middle {
  overflow: auto;
  min-height: 0;
}

.middle {
  padding: 12px 16px;
}

.middle:has(> .glance) {
  display: flex;
  flex-direction: column;
}

.middle > .glance {
  padding: 8px 0 0;
}

.left h2 {
  margin-top: 16px;
}

p {
  margin: 4px 0 8px;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

.line {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  gap: 8px;
  width: 100%;
  min-height: 28px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}

.line[aria-pressed='true'] {
  background: var(--selected);
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.empty {
  padding: 20px 28px;
}

@media (max-width: 900px) {
  .walk-part {
    grid-template-columns: minmax(0, 1fr);
    grid-auto-rows: max-content;
    overflow: auto;
  }

  .left,
  .right,
  .middle {
    overflow: visible;
  }
}
</style>
