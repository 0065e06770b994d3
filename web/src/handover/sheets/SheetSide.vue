<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, ref } from 'vue'

import type { Area, Duty, RecorderSheet, SheetStep } from '../../api/types'
import { useSite } from '../../site/useSite'
import { ago } from './ago'
import AreaStands from './AreaStands.vue'
import WeekStands from './WeekStands.vue'

/** Beside the steps: what stands at the recorder after the one in hand, who is where, and what changed since paper. */
const props = defineProps<{
  sheet: RecorderSheet
  recorders: RecorderSheet[]
  step?: SheetStep
  duties: Map<string, Duty>
  words: Record<string, string>
}>()
defineEmits<{ print: []; taken: []; show: [step: SheetStep] }>()
const site = useSite()
const most = 24 // steps that are named

const paper = (what: string) =>
  `/api/plans/${site.planId}/papers/${what}?keep=true&recorder=${encodeURIComponent(props.sheet.id)}`
const changed = computed(() => props.sheet.steps.filter((s) => s.changed || s.since))

/** The area that the step in hand draws, and on which channel. */
const area = computed(() => {
  const set = props.step?.do.set ?? props.step?.do.camera
  const drawn = set?.values?.area as Area | undefined
  const channel = site.channels.get(set?.channel ?? '')
  return drawn && channel ? { drawn, channel } : undefined
})

/** Whoever ticked something in the last half hour, and where they are. */
const now = ref(Date.now())
useIntervalFn(() => (now.value = Date.now()), 20_000)
const onSite = computed(() => {
  const last = new Map<string, { who: string; step: string; at: string; recorder: string }>()
  for (const r of props.recorders)
    for (const { id, done } of r.steps) {
      if (!done || now.value - Date.parse(done.at) > 30 * 60_000) continue
      const before = last.get(done.author)
      if (!before || before.at < done.at)
        last.set(done.author, { who: done.author, step: id, at: done.at, recorder: r.name })
    }
  return [...last.values()]
})
</script>

<template>
  <div>
    <p class="acts">
      <button type="button" class="act" data-test="print-sheet" @click="$emit('print')">Print the sheet</button>
      <a class="act quiet" :href="paper('sheet')" @click="$emit('taken')">PDF</a>
      <a class="act quiet" :href="paper('workbook')" @click="$emit('taken')">XLSX</a>
      <a class="act quiet" :href="paper('steps')" title="For programs: wakefield-steps/1">Steps</a>
    </p>
    <section v-if="step?.after" aria-label="What stands there then">
      <h2>What stands there then</h2>
      <p class="soft">
        {{ site.channels.get(step.channel ?? '')?.name }}, after step {{ step.id }}: compare it with the recorder’s
        screen
      </p>
      <WeekStands :rail="step.after" :duties="duties" :words="words" />
    </section>
    <section v-else-if="area" aria-label="What is drawn">
      <h2>What is drawn</h2>
      <p class="soft">{{ area.drawn.name }} on {{ area.channel.name }}</p>
      <AreaStands :area="area.drawn" :channel="area.channel" />
    </section>
    <section v-if="onSite.length" aria-label="On site now" data-test="on-site">
      <h2>On site now</h2>
      <p v-for="p in onSite" :key="p.who">
        {{ p.who }}, step {{ p.step }}<template v-if="recorders.length > 1"> of {{ p.recorder }}</template
        >, {{ ago(p.at, now) }}
      </p>
    </section>
    <section v-if="sheet.printed" aria-label="Since it was printed" data-test="since">
      <h2>Since revision {{ sheet.printed.revision }}, which was printed</h2>
      <p class="soft">by {{ sheet.printed.author }}, {{ ago(sheet.printed.at, now) }}</p>
      <p v-for="(s, i) in sheet.sinceThen" :key="i">{{ s }}</p>
      <p v-if="changed.length">
        Steps that changed:
        <template v-for="(s, i) in changed.slice(0, most)" :key="s.key"
          ><button type="button" class="plain-button link" @click="$emit('show', s)">{{ s.id }}</button
          >{{ i < Math.min(changed.length, most) - 1 ? ', ' : '' }}</template
        ><template v-if="changed.length > most"> and {{ changed.length - most }} more</template>
      </p>
      <p v-else class="soft">Nothing on it has changed.</p>
    </section>
    <section v-if="sheet.gone?.length" aria-label="Done, and not on the sheet any more">
      <h2>Done, and not on the sheet any more</h2>
      <p v-for="t in sheet.gone.slice(0, 8)" :key="t.key" class="soft">{{ t.step }} {{ t.words }}</p>
      <p v-if="sheet.gone.length > 8" class="soft">and {{ sheet.gone.length - 8 }} more</p>
    </section>
  </div>
</template>

<style scoped>
section {
  margin-bottom: 16px;
}

h2 {
}

p {
  margin: 2px 0 6px;
  overflow-wrap: anywhere;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 14px;
}

.acts a {
  text-decoration: none;
}
</style>
