<script setup lang="ts">
import { computed } from 'vue'

import type { TrialReport, WalkRecord } from '../../api/types'
import { useSite } from '../../site/useSite'
import { ago } from '../sheets/ago'

/** A trial with what was seen of it. */
const props = defineProps<{
  trial: TrialReport
  decide: (about: string, said: Pick<WalkRecord, 'decision' | 'aside'>) => Promise<boolean>
}>()
const site = useSite()
const last = computed(() => props.trial.results.findLast((r) => !r.setAside))
const saw = (id: string) => last.value?.trial!.lines.find((l) => l.id === id)?.right
</script>

<template>
  <section :aria-label="trial.name" data-test="trial-seen">
    <h2>{{ trial.name }}</h2>
    <p>{{ trial.do }}</p>
    <table>
      <tbody>
        <tr v-for="l in trial.lines" :key="l.id">
          <th scope="row">{{ l.words }}</th>
          <td :class="{ short: saw(l.id) === false }">{{ saw(l.id) == null ? '–' : saw(l.id) ? 'yes' : 'no' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-for="r in trial.results" :key="r.id" :class="{ soft: r.stale || r.setAside }">
      {{ r.by }}, {{ ago(r.at!) }}:
      {{ r.trial!.lines.every((l) => l.right) ? 'all as it should be' : 'not all as it should be' }}
      <template v-if="r.trial!.remark">: {{ r.trial!.remark }}</template>
      <template v-if="r.stale"> (the plan expects something else since)</template>
      <template v-if="r.setAside"> (set aside: {{ r.setAside.aside!.reason }})</template>
    </p>
    <p v-for="d in trial.decisions" :key="d.id">
      {{ d.decision!.what === 'leave' ? 'Left so' : 'To be tried again' }}, {{ d.by }}, {{ ago(d.at!) }}:
      {{ d.decision!.reason }}
    </p>
    <button
      v-if="trial.status === 'differs' && site.role !== 'reader'"
      type="button"
      class="act quiet"
      @click="decide(trial.id, { decision: { what: 'again' } })"
    >
      Mended: try it again
    </button>
  </section>
</template>

<style scoped>
p {
  margin: 4px 0 8px;
}

table {
  border-collapse: collapse;
}

th {
  font-weight: 400;
  text-align: left;
}

th,
td {
  padding: 4px 24px 4px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
