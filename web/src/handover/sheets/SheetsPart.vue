<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import FitterWords from './FitterWords.vue'
import SheetRest from './SheetRest.vue'
import SheetSections from './SheetSections.vue'
import SheetSide from './SheetSide.vue'
import StepLine from './StepLine.vue'
import { useOpenSheet } from './useOpenSheet'

/** What is typed at each recorder, step by step, and what was done of it. */
const site = useSite()
const { sheets, failure, printed, chosen, recorders, sheet, recorder, duties, ...here } = useOpenSheet()
const { sections, open, section, inHand, step, show, busy, mark } = here
const words = computed<Record<string, string>>(() => recorder.value?.words ?? {})
const left = computed(() => section.value?.steps.filter((s) => !s.done) ?? [])

/** The sections behind the one that is shown. */
const rest = computed(() => sections.value.filter((s) => s.number > (section.value?.number ?? 0)))

/** Opens the sheet as it is printed, and keeps that it was. */
function print() {
  window.open(`/api/plans/${site.planId}/papers/sheet?recorder=${encodeURIComponent(sheet.value!.id)}`, '_blank')
  void printed([sheet.value!.id])
}
</script>

<template>
  <div v-if="sheet" class="sheets">
    <aside class="left">
      <h1 class="title" :title="sheet.name">{{ sheet.name }}</h1>
      <ChoiceField
        v-if="recorders.length > 1"
        label="Recorder"
        :value="sheet.id"
        :choices="recorders.map((r) => [r.id, r.name] as const)"
        @change="(id) => (chosen = id)"
      />
      <SheetSections
        :model-value="section?.id ?? ''"
        :sheet="sheet"
        :sections="sections"
        @update:model-value="(id) => (open = id)"
      />
    </aside>
    <section v-if="section" class="sheet middle" :aria-label="section.name">
      <header>
        <h2>{{ section.number }} · {{ section.name }}</h2>
        <span class="soft">revision {{ sheets!.version }}</span>
        <button
          v-if="left.length > 1"
          type="button"
          class="plain-button link"
          :disabled="busy"
          data-test="tick-all"
          @click="mark(left, true)"
        >
          Tick all {{ left.length }}
        </button>
      </header>
      <p v-if="section.id === 'check' && sheet.now" class="now" data-test="now"><b>Now:</b> {{ sheet.now }}</p>
      <ul>
        <StepLine
          v-for="s in section.steps"
          :key="s.id"
          :step="s"
          :in-hand="s.id === step?.id"
          :busy="busy"
          @hand="inHand = s.id"
          @tick="(is) => mark([s], is)"
        />
      </ul>
      <FitterWords
        v-if="section.id === 'week' && recorder"
        :recorder="recorder"
        :duties="sheet.duties.flatMap((id) => duties.get(id) ?? [])"
      />
      <SheetRest v-if="rest.length" :sections="rest" @open="(id) => (open = id)" />
    </section>
    <p v-else class="sheet middle">No channel is planned on this recorder yet.</p>
    <SheetSide
      class="right"
      :sheet="sheet"
      :recorders="recorders"
      :step="step"
      :duties="duties"
      :words="words"
      @print="print"
      @taken="printed([sheet.id])"
      @show="show"
    />
  </div>
  <div v-else class="empty">
    <h1 class="title">Sheets</h1>
    <p v-if="failure" role="alert" class="short">{{ failure }}</p>
    <p v-else-if="sheets">
      No recorder is planned yet. A sheet says what a fitter types at a recorder, step by step:
      <RouterLink :to="{ name: 'kit', params: { part: 'recorders' } }">add a recorder in Kit</RouterLink> first.
    </p>
    <p v-else class="soft">The sheets are being written…</p>
  </div>
</template>

<style scoped>
.sheets {
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

.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.middle header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  padding: 0 6px 6px;
}

.middle h2 {
  flex: 1;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

.now {
  margin: 0 6px 6px;
}

.empty {
  padding: 20px 28px;
}

@media (max-width: 900px) {
  .sheets {
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
