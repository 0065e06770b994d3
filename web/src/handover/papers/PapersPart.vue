<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import { useSite } from '../../site/useSite'
import { count, fileWords } from '../../ui/figures'
import SegmentChoice from '../../ui/SegmentChoice.vue'
import CompanyForm from './CompanyForm.vue'
import PdfPages from '../../ui/PdfPages.vue'
import { useArchive } from './useArchive'
import { usePaper, type Paper, type Size } from './usePaper'
import { wordText } from '../../site/asText'
import { useInAddress } from '../../site/useInAddress'
import { useGoing } from '../../api/going'

/** The papers as they are printed. */
const site = useSite()
const papers = [
  ['customer', 'For the customer', 'What is kept, how long, and what is not: for agreement.'],
  ['sheet', 'The sheet', 'What a fitter types at the recorder, step by step.'],
  ['evidence', 'The evidence', 'What the figures rest on, and what would narrow them.'],
  ['walk-test', 'Walk test', 'A form to fill in by hand, camera by camera.'],
  ['walked', 'Walk test, done', 'What was seen on site, and who signed it.'],
] as const
const paper = ref<Paper>('customer')
useInAddress(
  'paper',
  wordText(
    paper,
    papers.map(([id]) => id),
    'customer',
  ),
  true,
)
const size = useStorage<Size>('wakefield-paper', 'a4')
const without = ref(new Set<string>()) // recorders that are left out
const recorders = computed(() => site.plan?.recorders ?? [])
const ofRecorders = computed(() => paper.value === 'sheet' || paper.value === 'walk-test')
const company = ref(0)

/** Those that are asked for; nothing where all are. */
const some = computed(() => {
  const list = recorders.value.filter((r) => !without.value.has(r.id)).map((r) => r.id)
  return list.length < recorders.value.length ? list : undefined
})
const asked = computed(() => ({ size: size.value, recorder: some.value }))
const query = computed(() => {
  const q = new URLSearchParams({ size: size.value })
  for (const id of some.value ?? []) q.append('recorder', id)
  return q.toString()
})
/** Takes a recorder in or leaves it out; one at least stays. */
function toggle(id: string) {
  const next = new Set(without.value)
  if (!next.delete(id)) next.add(id)
  if (recorders.value.some((r) => !next.has(r.id))) without.value = next
}
const base = computed(() => `/api/plans/${site.planId}/papers`)
const { data, failure, asking, again } = usePaper(
  () => paper.value,
  () => asked.value,
  () => company.value,
)
useGoing({ what: 'Writing the paper' }, () => asking.value)
const pages = ref(0)
const archive = useArchive()
const zip = () =>
  archive.fetchAll(asked.value, `${fileWords(site.plan!.site.name)}, ${fileWords(site.plan!.name)}, papers.zip`)
function print() {
  window.open(`${base.value}/${paper.value}?${query.value}`, '_blank')
}
</script>

<template>
  <div class="papers">
    <aside class="left">
      <h1 class="title">Papers</h1>
      <nav aria-label="Papers">
        <button
          v-for="[id, name, what] in papers"
          :key="id"
          type="button"
          class="plain-button paper"
          :class="{ here: id === paper }"
          :aria-current="id === paper ? 'true' : undefined"
          :data-paper="id"
          @click="paper = id"
        >
          <b>{{ name }}</b> <span class="soft">{{ what }}</span>
        </button>
      </nav>
      <SegmentChoice
        v-model="size"
        label="Paper"
        :ways="[
          ['a4', 'A4'],
          ['letter', 'Letter'],
        ]"
      />
      <fieldset v-if="recorders.length > 1" class="which">
        <legend>Recorders, for sheets and walk test</legend>
        <label v-for="r in recorders" :key="r.id"
          ><input type="checkbox" :checked="!without.has(r.id)" :data-of="r.id" @click.prevent="toggle(r.id)" />
          {{ r.name }}</label
        >
      </fieldset>
      <p class="acts">
        <button type="button" class="act" data-test="print-paper" @click="print">Print</button>
        <a class="act quiet" :href="`${base}/${paper}?${query}&keep=true`" data-test="pdf">PDF</a>
        <a v-if="ofRecorders && paper === 'sheet'" class="act quiet" :href="`${base}/workbook?${query}`">XLSX</a>
      </p>
      <p class="acts">
        <button type="button" class="act quiet" :disabled="!!archive.all.value" data-test="zip" @click="zip">
          All papers, zip
        </button>
        <template v-if="archive.all.value">
          <progress :value="archive.done.value" :max="archive.all.value" aria-label="Papers that are done" />
          <span class="soft">{{ archive.done.value }} of {{ archive.all.value }}</span>
          <button type="button" class="plain-button link" @click="archive.stop">Stop</button>
        </template>
      </p>
      <CompanyForm @changed="company++" />
    </aside>
    <section class="shown" :aria-label="papers.find(([id]) => id === paper)![1]">
      <p class="soft state" aria-live="polite">
        <template v-if="failure"
          ><span class="short" role="alert">{{ failure }}</span>
          <button type="button" class="plain-button link" @click="again">Try again</button></template
        >
        <template v-else-if="asking && !data">The paper is being written…</template>
        <template v-else>{{ pages ? `${count(pages, 'page')}, as printed` : '' }}</template>
      </p>
      <PdfPages v-if="data" :data="data" :label="papers.find(([id]) => id === paper)![1]" @shown="(n) => (pages = n)" />
    </section>
  </div>
</template>

<style scoped>
.papers {
  display: grid;
  grid-template-columns: 264px minmax(0, 1fr);
  gap: 16px;
  padding: 12px 16px;
  min-height: 0;
}

.left,
.shown {
  overflow: auto;
  min-height: 0;
}

.paper {
  display: block;
  width: 100%;
  padding: 5px 8px;
  border-left: 3px solid transparent;
}

.paper span {
  display: block;
  font-size: var(--second);
}

.paper:hover {
  background: var(--band);
}

.paper.here {
  background: var(--selected);
  border-left-color: var(--base);
}

nav {
  margin: 6px 0 10px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 8px 0;
}

.acts a {
  text-decoration: none;
}

.which {
  border: 0;
  margin: 8px 0;
  padding: 0;
}

.which legend {
  padding: 0;
}

.which label {
  display: flex;
  gap: 6px;
  overflow-wrap: anywhere;
}

progress {
  width: 70px;
  accent-color: var(--base);
}

.state {
  margin: 0 0 6px;
  min-height: 18px;
  text-align: center;
}

@media (max-width: 900px) {
  .papers {
    grid-template-columns: minmax(0, 1fr);
    grid-auto-rows: max-content;
    overflow: auto;
  }

  .left,
  .shown {
    overflow: visible;
  }
}
</style>
