<script setup lang="ts">
import { computed } from 'vue'

import PlanGlance from '../../glance/PlanGlance.vue'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import FindingsOf from '../parts/FindingsOf.vue'
import MovableCard from './MovableCard.vue'
import StillsTable from './StillsTable.vue'
import { useAlerts } from '../parts/useAlerts'
import { useEdits } from '../parts/useEdits'
import TermTip from '../../ui/TermTip.vue'

/** Cameras that move, and stills. */
const site = useSite()
const edits = useEdits()
const { data: alerts, failure } = useAlerts()
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const moving = computed(() => cameras.value.filter((c) => c.movable))
const others = computed(() =>
  cameras.value.filter((c) => !c.movable).map((c) => [c.id, `${c.number} ${c.name}`] as const),
)
const start = (channel: string) =>
  edits.change({
    setMovable: {
      channel,
      movable: {
        home: 'preset-1',
        presets: [
          { id: 'preset-1', name: 'Home' },
          { id: 'preset-2', name: 'Preset 2' },
        ],
      },
    },
  })
</script>

<template>
  <div class="part">
    <h1 class="visually-hidden">Movable cameras and snapshots of {{ site.plan?.site.name }}</h1>
    <p v-if="failure || edits.problem.value" class="short" role="alert">{{ failure || edits.problem.value }}</p>
    <FindingsOf :rules="['camera-away', 'stills-incomplete']" />
    <section data-test="movable">
      <h2><TermTip word="preset">Movable cameras</TermTip></h2>
      <p v-if="!moving.length" class="soft">No camera of this site can move.</p>
      <MovableCard v-for="c in moving" :key="c.id" :channel="c" :alerts="alerts" />
      <ChoiceField
        v-if="others.length"
        class="start"
        :label="moving.length ? 'This one moves too' : 'Make movable'"
        :value="undefined"
        :choices="others"
        @change="start"
      />
    </section>
    <StillsTable :alerts="alerts" />
    <PlanGlance v-if="alerts" class="plan" />
  </div>
</template>

<style scoped src="../parts/part.css"></style>
<style scoped>
.part {
  display: flex;
  flex-direction: column;
}

/* What stands in the page stands as it is; the plan has the rest. */
.part > :not(.plan) {
  flex: none;
}

.plan {
  padding: 0;
}

.start {
  max-width: 320px;
  margin-top: 8px;
}
</style>
