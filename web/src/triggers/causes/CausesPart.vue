<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'

import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import type { NewThing } from './newThings'
import PickList, { type PickRow } from './PickList.vue'
import StrandLines from './StrandLines.vue'
import TiePane from './TiePane.vue'
import { useEdits } from '../parts/useEdits'
import { useNew } from './useNew'
import { useTies } from './useTies'
import { aDay } from './words'

/** What causes what: causes on one side, what they do on the other, and the ties between as strands. */
const site = useSite()
const ties = useTies()
const { pickedCauses, pickedTargets, failure, data } = ties
const edits = useEdits()
const add = useNew(edits)
const left = useTemplateRef('left')
const right = useTemplateRef('right')
const laid = ref(0)

/** The side on which something was picked first stays as it is; the other shows what is tied to it on top. */
const lead = ref<'causes' | 'targets'>()
watch([pickedCauses, pickedTargets], ([c, t]) => {
  if (!c.length && !t.length) lead.value = undefined
  else if (!lead.value) lead.value = c.length ? 'causes' : 'targets'
  else if (lead.value === 'causes' && !c.length) lead.value = 'targets'
  else if (lead.value === 'targets' && !t.length) lead.value = 'causes'
})

const keeps = { others: 'records others only', nothing: 'records nothing', off: 'detection off', itself: '' }
const causeRows = computed<PickRow[]>(() =>
  ties.causes.value.map((c) => {
    const lack = c.line.keeps ? keeps[c.line.keeps] : ''
    const often = c.line.happensPerDay === undefined ? '' : aDay(c.line.happensPerDay)
    return {
      key: c.key,
      name: c.name,
      group: c.group,
      note: lack || often,
      short: lack !== '' && lack !== keeps.others,
      ties: ties.tied.value.get(c.key) ?? 0,
    }
  }),
)
const targetRows = computed<PickRow[]>(() =>
  ties.targets.value.map((t) => ({
    key: t.key,
    name: t.name,
    group: t.group,
    ties: ties.tied.value.get(t.key) ?? 0,
  })),
)
const tiedCauses = computed(() => new Set(ties.strands.value.map((t) => t.cause.key)))
const tiedTargets = computed(() => new Set(ties.strands.value.map((t) => t.target.key)))

const fresh = ref('') // what was just added, to be picked as soon as it is there
async function make(what: NewThing) {
  fresh.value = (await add(what)) ?? ''
}
watch([ties.causes, ties.targets], async () => {
  if (!fresh.value) return
  if (ties.causes.value.some((c) => c.key === fresh.value))
    [pickedCauses.value, pickedTargets.value] = [[fresh.value], []]
  else if (ties.targets.value.some((t) => t.key === fresh.value))
    [pickedCauses.value, pickedTargets.value] = [[], [fresh.value]]
  else return
  fresh.value = ''
  await nextTick()
})
</script>

<template>
  <div class="causes">
    <h1 class="visually-hidden">What causes what at {{ site.plan?.site.name }}</h1>
    <p v-if="failure" class="short failure" role="alert">{{ failure }}</p>
    <p v-if="edits.problem.value" class="short failure" role="alert">{{ edits.problem.value }}</p>
    <PickList
      ref="left"
      v-model="pickedCauses"
      label="Causes"
      :rows="causeRows"
      :tied="tiedCauses"
      :tied-first="lead === 'targets'"
      :empty="data ? 'Nothing can happen yet. Name cameras in Kit.' : ''"
      data-test="causes"
      @layout="laid++"
    >
      <p class="new soft">
        New:
        <button type="button" class="plain-button link" data-test="new-alarm" @click="make('alarm')">
          alarm input
        </button>
        <button type="button" class="plain-button link" data-test="new-button" @click="make('button')">button</button>
      </p>
    </PickList>
    <StrandLines :ties="ties.strands.value" :from="(k) => left?.yOf(k)" :to="(k) => right?.yOf(k)" :at="laid" />
    <PickList
      ref="right"
      v-model="pickedTargets"
      label="Effects"
      :rows="targetRows"
      :tied="tiedTargets"
      :tied-first="lead === 'causes'"
      empty="There is nothing to do yet."
      data-test="targets"
      @layout="laid++"
    >
      <p class="new soft">
        New:
        <button type="button" class="plain-button link" data-test="new-message" @click="make('message')">
          message
        </button>
        <button type="button" class="plain-button link" data-test="new-output" @click="make('output')">output</button>
        <button type="button" class="plain-button link" data-test="new-monitor" @click="make('monitor')">
          monitor
        </button>
      </p>
    </PickList>
    <TiePane :ties="ties" />
    <p class="visually-hidden" aria-live="polite">
      {{ count(pickedCauses.length, 'cause') }} and {{ count(pickedTargets.length, 'effect') }} picked,
      {{ count(ties.shown.value.length, 'tie') }} between
    </p>
  </div>
</template>

<style scoped>
.causes {
  display: grid;
  grid-template: auto auto minmax(0, 1fr) / minmax(220px, 1fr) 110px minmax(220px, 1fr) 360px;
  height: 100%;
  min-height: 0;
  padding-top: 8px;
}

.failure {
  grid-column: 1 / -1;
  margin: 0 10px 6px;
}

.causes > :deep(.side),
.causes > :deep(.strands),
.causes > :deep(.pane) {
  grid-row: 3;
}

.new {
  margin: 0 8px 5px;
  font-size: var(--second);
}

.new .link {
  margin-right: 7px;
}

@media (max-width: 1000px) {
  .causes {
    grid-template: auto auto minmax(0, 3fr) minmax(0, 2fr) / minmax(0, 1fr) 60px minmax(0, 1fr);
  }

  .causes > :deep(.pane) {
    grid-area: 4 / 1 / 5 / -1;
  }
}

/* A phone is for reading. */
@media (max-width: 500px) {
  .causes {
    grid-template: auto auto 300px 300px auto / minmax(0, 1fr);
    overflow: auto;
  }

  .causes > :deep(.strands),
  .new {
    display: none;
  }

  .causes > :deep([data-test='targets']) {
    grid-row: 4;
  }

  .causes > :deep(.pane) {
    grid-row: 5;
  }
}
</style>
