<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { FoundLoss } from '../api/types'
import { useSite } from '../site/useSite'
import { change } from '../ui/figures'

/** A change that mends a loss, with what it costs before it is made. */
const props = defineProps<{ mend: FoundLoss['mends'][number] }>()
const site = useSite()
const { data: draft, failure } = useAnswer(
  () => [site.stamp, JSON.stringify(props.mend.edits)],
  () =>
    api.POST('/api/plans/{id}/draft', { params: site.here, body: { version: site.version, edits: props.mend.edits } }),
)
const price = computed(() => {
  const d = draft.value
  if (!d) return ''
  const pool = d.pools[0]
  const days = pool?.days != null && pool.daysNow != null ? change(pool.days - pool.daysNow) : ''
  const missed = change(d.evidenceChange.missedPerDay ?? 0)
  return [
    days ? `${days} days kept` : 'days kept stay',
    missed && `${missed} events missed a day`,
    change(d.gigabytesPerDayChange) && `${change(d.gigabytesPerDayChange)} GB a day`,
  ]
    .filter(Boolean)
    .join(', ')
})
</script>

<template>
  <p class="mend">
    <button
      v-if="site.role === 'planner'"
      type="button"
      class="act quiet"
      :disabled="!draft"
      data-test="mend"
      @click="site.change(mend.edits)"
    >
      {{ mend.words }}
    </button>
    <b v-else>{{ mend.words }}</b>
    <span v-if="failure" class="short">{{ failure }}</span>
    <span v-else class="soft">{{ price }}</span>
  </p>
</template>

<style scoped>
.mend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  margin: 4px 0;
}
</style>
