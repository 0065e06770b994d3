<script setup lang="ts">
import { computed } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { useVariants } from '../site/useVariants'
import { dayNames } from '../time/week'
import DifferenceList from './DifferenceList.vue'
import TwoWeeks from './TwoWeeks.vue'
import { MOST, useCompare } from './useCompare'
import VerdictTable from './VerdictTable.vue'
import YearsOver from './YearsOver.vue'
import TermTip from '../ui/TermTip.vue'
import { count } from '../ui/figures'

/** Variants of the site side by side: verdicts, what differs in words, and the weeks over each other. */
const site = useSite()
const variants = useVariants()
const { here, chosen, list, first, second, other, failure, asking, toggle, lead, carry } = useCompare()
const { data: weeks } = useAnswer(
  () => [first.value?.id, first.value?.version, second.value?.id, second.value?.version],
  () =>
    first.value && second.value
      ? api.GET('/api/sites/{id}/compare/ribbons', {
          params: { path: { id: site.id }, query: { first: first.value.id, second: second.value.id } },
        })
      : undefined,
)
const shown = computed(() => (weeks.value ?? []).slice(0, 200))
const file = computed(() => `/api/sites/${site.id}/compare/file?plans=${chosen.value.join()}`)
const print = () => window.print()
async function adopt(id: string) {
  await variants.adopt(id)
}
</script>

<template>
  <div class="compare" data-test="compare">
    <header>
      <h1><TermTip word="variant">Compare</TermTip></h1>
      <fieldset>
        <legend class="visually-hidden">Variants that are compared, four at most</legend>
        <label v-for="v in here" :key="v.id"
          ><input
            type="checkbox"
            :checked="chosen.includes(v.id)"
            :disabled="!chosen.includes(v.id) && chosen.length >= MOST"
            :data-compared="v.id"
            @change="toggle(v.id)"
          />
          {{ v.name }}</label
        >
      </fieldset>
      <span class="acts">
        <button type="button" class="plain-button link" data-test="print" @click="print">Print</button>
        <a :href="file" download class="link" data-test="compare-file">Save as a file to send</a>
      </span>
    </header>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-if="here.length < 2" class="soft" data-test="lonely">
      This site has one variant. Make another in the menu at its name, above, or on
      <RouterLink :to="{ name: 'storage' }">Storage</RouterLink> by <i>Make it a variant</i>; then both stand here side
      by side.
      <button type="button" class="act" data-test="second-variant" @click="variants.make(site.plan!.name)">
        Make a second variant
      </button>
    </p>
    <p v-else-if="!list.length && asking" class="soft">Comparing…</p>
    <p v-else-if="!chosen.length" class="soft">Pick the variants to compare, above.</p>
    <VerdictTable
      v-if="list.length"
      :list="list"
      :second="second"
      :open="site.planId"
      @look="(id) => (other = id)"
      @lead="lead"
      @show="(id) => variants.show(id)"
      @adopt="adopt"
    />
    <PlanGlance v-if="list.length === 1" class="alone" />
    <YearsOver v-if="list.length > 1" class="years" :list="list" />
    <div v-if="first && second" class="panes">
      <DifferenceList :key="second.id" :first="first" :second="second" @carry="carry" />
      <section data-test="two-weeks">
        <h2>Their weeks, one over the other</h2>
        <p class="legend soft">
          <span><i class="both" /> written by both</span><span><i class="more" /> added by {{ second.name }}</span
          ><span><i class="less" /> removed by it</span>
        </p>
        <p v-if="weeks && !weeks.length" class="soft">Both write the same at every hour.</p>
        <p v-if="shown.length" class="days soft" aria-hidden="true">
          <span v-for="d in dayNames" :key="d">{{ d.slice(0, 3) }}</span>
        </p>
        <TwoWeeks v-for="r in shown" :key="r.id" :ribbon="r" />
        <p v-if="(weeks?.length ?? 0) > shown.length" class="soft">
          and {{ count(weeks!.length - shown.length, 'channel') }} more; the differences name them.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.compare {
  display: flex;
  flex-direction: column;
  height: 100%;
  overflow: auto;
  padding: 12px 18px 30px;
}

header {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: baseline;
  margin-bottom: 8px;
}

h1 {
  margin: 0;
}

fieldset {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  border: 0;
  margin: 0;
  padding: 0;
}

.acts {
  display: flex;
  gap: 16px;
  margin-left: auto;
}

.years {
  margin-top: 16px;
}

.alone {
  padding: 16px 0 0;
}

.compare > :not(.alone) {
  flex: none;
}

.panes {
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 28px;
  margin-top: 18px;
}

.days {
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  margin: 0 124px 0 128px;
  font-size: var(--axis);
}

.panes h2 {
  margin: 0 0 6px;
}

.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  margin: 0 0 4px;
  font-size: var(--second);
}

.legend i {
  display: inline-block;
  width: 16px;
  height: 10px;
  margin-right: 3px;
}

.both {
  background: color-mix(in srgb, var(--ink) 35%, transparent);
}

.more {
  background: repeating-linear-gradient(90deg, var(--motion) 0 1.4px, transparent 1.4px 3px);
}

.less {
  border-top: 1px dashed var(--short);
  background: color-mix(in srgb, var(--short) 16%, transparent);
}

@media (max-width: 900px) {
  .panes {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media print {
  .compare {
    height: auto;
    overflow: visible;
  }

  fieldset,
  header .acts {
    display: none;
  }
}
</style>
