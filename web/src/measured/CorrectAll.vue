<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { FoundFigure, MeasuredSite } from '../api/types'
import { useSite } from '../site/useSite'
import { count, three } from '../ui/figures'
import { useVariants } from '../site/useVariants'

/** All that differs, written into the plan or a variant; what the days are then, and what would bring them back. */
const props = defineProps<{ result: NonNullable<MeasuredSite['result']>; chosen: FoundFigure[] }>()
const site = useSite()
const variants = useVariants()
const all = computed(() => props.result.figures.filter((f) => f.moreThanChance && f.edits.length).length)
const names = computed(() => props.chosen.map((f) => ({ kind: f.kind, id: f.id, channel: f.channels[0] ?? '' })))
/** Of some of what differs the server says which edits go together. */
const { data: some } = useAnswer(
  () => [site.stamp, JSON.stringify(names.value)],
  () =>
    names.value.length && names.value.length < all.value
      ? api.POST('/api/plans/{id}/measured/corrections', { params: site.here, body: { figures: names.value } })
      : undefined,
)
const edits = computed(() => (props.chosen.length === all.value ? props.result.corrections : (some.value?.edits ?? [])))
const { data: draft, failure } = useAnswer(
  () => [site.stamp, JSON.stringify(edits.value)],
  () =>
    edits.value.length
      ? api.POST('/api/plans/{id}/draft', { params: site.here, body: { version: site.version, edits: edits.value } })
      : undefined,
  { keep: true },
)
const required = computed(() => site.verdict?.requiredDays ?? 0)
const then = computed(() => draft.value?.verdict.keptDays)
const range = computed(() => {
  const c = draft.value?.verdict
  return c?.likelyDays ? ` (${three(c.likelyDays.low)} to ${three(c.likelyDays.high)})` : ''
})
const falls = computed(() => required.value > 0 && then.value != null && then.value < required.value)

async function asVariant() {
  await variants.make('As measured', edits.value)
}
</script>

<template>
  <p class="all">
    <template v-if="site.role === 'planner' && edits.length">
      <button type="button" class="act" data-test="correct-all" @click="site.change(edits)">
        Correct the plan, {{ count(chosen.length, 'change') }}
      </button>
      <button type="button" class="act quiet" data-test="as-variant" @click="asVariant">Make it a variant</button>
    </template>
    <span v-if="then != null" data-test="then">then {{ three(then) }} days{{ range }}</span>
    <span v-else-if="failure" class="short">{{ failure }}</span>
    <RouterLink v-if="falls" :to="{ name: 'storage', query: { days: required } }" data-test="bring-back"
      >What would bring {{ count(required, 'day') }} back</RouterLink
    >
  </p>
</template>

<style scoped>
.all {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin: 12px 0;
}
</style>
