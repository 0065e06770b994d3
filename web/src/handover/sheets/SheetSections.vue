<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed } from 'vue'

import type { RecorderSheet } from '../../api/types'
import { count } from '../../ui/figures'
import ChoiceField from '../../ui/ChoiceField.vue'
import TermTip from '../../ui/TermTip.vue'

/** How far a sheet is, its sections, and what the recorder cannot take. */
const props = defineProps<{
  sheet: RecorderSheet
  sections: { id: string; name: string; number: number; steps: unknown[]; done: number }[]
}>()
const open = defineModel<string>({ required: true })
const done = computed(() => props.sheet.steps.filter((s) => s.done).length)
const isNarrow = useMediaQuery('(max-width: 900px)')
const most = 12 // of what it cannot take
</script>

<template>
  <div>
    <p class="soft" data-test="entries">
      {{ done }} of {{ count(sheet.steps.length, 'step') }} done ·
      <TermTip word="entry">{{ count(sheet.entries, 'entry', 'entries') }}</TermTip><template
        v-if="sheet.entriesOneByOne > sheet.entries"
        >; {{ sheet.entriesOneByOne }} if every channel were typed by itself</template
      >
    </p>
    <progress :value="done" :max="sheet.steps.length || 1" :aria-label="`${done} of ${sheet.steps.length} done`" />
    <ChoiceField
      v-if="isNarrow"
      label="Section"
      :value="open"
      :choices="sections.map((s) => [s.id, `${s.number} ${s.name} · ${s.done} of ${s.steps.length}`] as const)"
      @change="(id) => (open = id)"
    />
    <nav v-else aria-label="Sections">
      <button
        v-for="s in sections"
        :key="s.id"
        type="button"
        class="plain-button section"
        :class="{ here: s.id === open, all: s.done === s.steps.length }"
        :aria-current="s.id === open ? 'true' : undefined"
        :data-section="s.id"
        @click="open = s.id"
      >
        <span>{{ s.number }} {{ s.name }}</span> <span class="of">{{ s.done }} of {{ s.steps.length }}</span>
      </button>
    </nav>
    <details v-if="sheet.departures.length" class="cannot" data-test="cannot" :open="!isNarrow">
      <summary class="short">What it cannot take</summary>
      <ul>
        <li v-for="(d, i) in sheet.departures.slice(0, most)" :key="i">
          {{ d.words }}
        </li>
        <li v-if="sheet.departures.length > most" class="soft">and {{ sheet.departures.length - most }} more</li>
      </ul>
      <RouterLink :to="{ name: 'findings' }">What that does, and other ways</RouterLink>
    </details>
  </div>
</template>

<style scoped>
p {
  margin: 2px 0 6px;
}

progress {
  width: 100%;
  height: 6px;
  accent-color: var(--base);
}

.section {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  min-height: 28px;
  align-items: center;
  padding: 2px 8px;
  border-left: 3px solid transparent;
}

.section:hover {
  background: var(--band);
}

.section.here {
  background: var(--selected);
  border-left-color: var(--base);
  font-weight: 600;
}

.section.all {
  color: var(--soft);
}

.of {
  font-size: var(--second);
  white-space: nowrap;
  font-weight: 400;
}

summary {
  cursor: pointer;
  font-weight: 600;
}

.cannot {
  margin-top: 12px;
  font-size: var(--second);
}

ul {
  list-style: none;
  margin: 2px 0 4px;
  padding: 0;
}

li {
  padding: 2px 0;
  overflow-wrap: anywhere;
}
</style>
