<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { WalkRecord } from '../api/types'
import { useSite } from '../site/useSite'
import { moment } from '../time/dates'

/** What was walked, tried and decided on site, the newest first: no changes of the plan, but of its history. */
const site = useSite()
const { data } = useAnswer(
  () => [site.planId, site.handed],
  () => (site.planId ? api.GET('/api/plans/{id}/handover', { params: site.here }) : undefined),
  { keep: true },
)
const most = 50
const lines = computed(() =>
  [...(data.value?.records ?? [])]
    .reverse()
    .filter((r) => !r.aside)
    .slice(0, most),
)
const seconds = (s: number) => `${s.toFixed(1)} s`
const what = (id: string) => {
  const c = site.channels.get(id)
  return c ? `${c.number} ${c.name}` : id
}
const decisions = {
  again: 'to be walked again',
  propose: 'asks for a change of the plan',
  leave: 'left so',
  taken: 'taken into the plan',
  declined: 'declined',
}
function sentence(r: WalkRecord): string {
  if (r.walk) {
    const [planned] = r.walk.planned
    const expected = planned == null ? 'none expected' : `expected at ${seconds(planned)}`
    const sign = r.walk.sign == null ? 'no sign' : `sign at ${seconds(r.walk.sign)}`
    return `${what(r.about)}, ${r.walk.name}: ${sign}, ${expected}`
  }
  if (r.trial)
    return `${r.trial.name}: ${r.trial.lines.every((l) => l.right) ? 'as it should be' : 'not as it should be'}`
  if (r.decision)
    return `${what(r.about)}: ${decisions[r.decision.what]}${r.decision.reason ? `, ${r.decision.reason}` : ''}`
  if (r.photo) return `${what(r.about)}: a photo`
  if (r.signature) return `The walk test was signed by ${r.signature.name}`
  if (r.error)
    return `The clock of ${site.plan?.recorders.find((x) => x.id === r.about)?.name ?? r.about} was looked at`
  return ''
}
</script>

<template>
  <details v-if="lines.length" data-test="on-site">
    <summary>
      On site: {{ data!.records.length }} noted, the last {{ moment(lines[0]!.at!) }} by
      {{ lines[0]!.by }}
    </summary>
    <ul>
      <li v-for="r in lines" :key="r.id">
        <span class="soft">{{ moment(r.at!) }}, {{ r.by }}</span> {{ sentence(r) }}
      </li>
    </ul>
    <p>
      <RouterLink :to="{ name: 'handover', params: { part: 'walk' } }" class="link"
        >All of it stands under Handover, Walk test</RouterLink
      >
    </p>
  </details>
</template>

<style scoped>
summary {
  cursor: pointer;
}

ul {
  margin: 4px 0;
  padding: 0;
  list-style: none;
}

li {
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
