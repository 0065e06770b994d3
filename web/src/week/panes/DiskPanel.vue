<script setup lang="ts">
import { computed, ref } from 'vue'

import PoolForm from '../../forms/PoolForm.vue'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { days, gigabytes } from '../../ui/figures'

/** The drives of one pool, and what they hold. */
const site = useSite()
const picked = ref('')
const all = computed(() =>
  (site.plan?.recorders ?? []).flatMap((recorder) => recorder.pools.map((pool) => ({ recorder, pool }))),
)
const here = computed(() => all.value.find((p) => p.pool.id === picked.value) ?? all.value[0])
const figures = computed(() => site.pools.find((p) => p.id === here.value?.pool.id))
</script>

<template>
  <section v-if="here && figures" aria-label="Disk">
    <ChoiceField
      v-if="all.length > 1"
      label="Pool"
      :value="here.pool.id"
      :choices="all.map((p) => [p.pool.id, p.pool.name] as const)"
      @change="(id) => (picked = id)"
    />
    <h2 v-else>{{ here.recorder.name }}</h2>
    <PoolForm :recorder="here.recorder.id" :pool="here.pool" />
    <div
      class="bar"
      role="img"
      :aria-label="`${gigabytes(figures.usableGB)} usable of ${gigabytes(figures.boughtGB)} bought`"
    >
      <span :style="{ width: `${(100 * figures.usableGB) / Math.max(1, figures.boughtGB)}%` }" />
    </div>
    <dl class="figures">
      <dt>usable</dt>
      <dd>{{ gigabytes(figures.usableGB) }} of {{ gigabytes(figures.boughtGB) }}</dd>
      <dt>written a day</dt>
      <dd>{{ gigabytes(figures.gigabytesPerDay) }}</dd>
      <dt>full after</dt>
      <dd>{{ days(figures.retentionDays) }}</dd>
      <dt>at the worst hour</dt>
      <dd>{{ days(figures.worstDays) }}</dd>
      <dt>likely range (80 %)</dt>
      <dd>{{ figures.likelyDays ? `${days(figures.likelyDays.low)} – ${days(figures.likelyDays.high)}` : '—' }}</dd>
    </dl>
  </section>
  <p v-else class="soft">There is no recorder yet.</p>
</template>

<style scoped>
.bar {
  height: 8px;
  margin: 10px 0 6px;
  background: repeating-linear-gradient(135deg, var(--rule) 0 2px, transparent 2px 5px);
  border: 1px solid var(--rule);
}

.bar span {
  display: block;
  height: 100%;
  background: var(--base);
}
</style>
