<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { CameraReport, WalkRecord } from '../../api/types'
import { useSite } from '../../site/useSite'
import { ago } from '../sheets/ago'

/** What was found, as a change of the plan, with what it would do; a planner takes it, or does not. */
const props = defineProps<{
  camera: CameraReport
  proposal: NonNullable<CameraReport['proposal']>
  decide: (about: string, said: Pick<WalkRecord, 'decision' | 'aside'>) => Promise<boolean>
}>()
const site = useSite()
const edits = computed(() => props.proposal.edits ?? [])
const { data: draft, failure } = useAnswer(
  () => [site.stamp, JSON.stringify(edits.value)],
  () =>
    edits.value.length && !props.proposal.answered
      ? api.POST('/api/plans/{id}/draft', { params: site.here, body: { version: site.version, edits: edits.value } })
      : undefined,
)
const one = (n: number) => n.toFixed(1).replace('-', '−')
const days = computed(() => {
  const pool = draft.value?.pools[0]
  if (pool?.days == null || pool.daysNow == null || one(pool.days) === one(pool.daysNow)) return 'days kept stay'
  return `${one(pool.daysNow)} becomes ${one(pool.days)} days`
})
const missed = computed(() => {
  const change = draft.value?.evidenceChange.missedPerDay ?? 0
  return Math.abs(change) < 0.05
    ? 'no event more is missed'
    : `${one(Math.abs(change))} events a day ${change > 0 ? 'more' : 'fewer'} are missed`
})

async function take() {
  site.change(edits.value)
  const of = props.proposal.asked?.id
  await props.decide(props.camera.channel, { decision: { what: 'taken', of, words: props.proposal.words } })
}
const decline = () =>
  props.decide(props.camera.channel, { decision: { what: 'declined', of: props.proposal.asked!.id } })
</script>

<template>
  <section class="proposal" aria-label="What was found, as a change of the plan" data-test="proposal">
    <h3>Use what was found</h3>
    <p v-if="proposal.asked">
      {{ proposal.asked.by }} asks for it, {{ ago(proposal.asked.at!)
      }}<template v-if="proposal.asked.decision!.reason">: {{ proposal.asked.decision!.reason }}</template>
    </p>
    <p v-if="proposal.answered" class="soft">
      {{ proposal.answered.decision!.what === 'taken' ? 'Taken' : 'Declined' }} by {{ proposal.answered.by }},
      {{ ago(proposal.answered.at!) }}.
    </p>
    <p v-else-if="!edits.length" class="soft">The plan has no setting for this: it is mended on site.</p>
    <template v-else>
      <p v-if="draft">If the plan says so: {{ days }}, {{ missed }}.</p>
      <p v-else-if="failure" class="short">{{ failure }}</p>
      <template v-if="site.role === 'planner'">
        <button type="button" class="act" :disabled="!draft" data-test="take-found" @click="take">
          Change the plan
        </button>
        <button v-if="proposal.asked" type="button" class="act quiet" @click="decline">Decline</button>
      </template>
      <p v-else class="soft">A planner of this site decides.</p>
    </template>
  </section>
</template>

<style scoped>
.proposal {
  border-left: 3px solid var(--rule);
  padding-left: 12px;
  margin: 12px 0;
}

p {
  margin: 4px 0;
}

.act + .act {
  margin-left: 8px;
}
</style>
