<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Pool } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { days, gigabytes } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'

const site = useSite()
const picked = ref('')
const all = computed(() => (site.plan?.recorders ?? []).flatMap((recorder) => recorder.pools.map((pool) => ({ recorder, pool }))))
const here = computed(() => all.value.find((p) => p.pool.id === picked.value) ?? all.value[0])
const figures = computed(() => site.pools.find((p) => p.id === here.value?.pool.id))
const layouts = [
  ['span', 'no RAID'], ['raid0', 'RAID 0'], ['raid1', 'RAID 1'], ['raid5', 'RAID 5'], ['raid6', 'RAID 6'], ['raid10', 'RAID 10'],
] as const

function set(change: Partial<Pool>) {
  if (here.value) site.change([{ setPool: { recorder: here.value.recorder.id, pool: { ...here.value.pool, ...change } } }])
}

function setDrives(i: number, change: { count?: number; terabytes?: number }) {
  set({ drives: here.value!.pool.drives.map((g, k) => (k === i ? { ...g, ...change } : g)) })
}
</script>

<template>
  <section v-if="here && figures" aria-label="Disk">
    <ChoiceField v-if="all.length > 1" label="Pool" :value="here.pool.id" :choices="all.map((p) => [p.pool.id, p.pool.name] as const)" @change="(id) => (picked = id)" />
    <h2 v-else>{{ here.recorder.name }}</h2>
    <template v-for="(g, i) in here.pool.drives" :key="i">
      <NumberField whole label="Drives" :value="g.count" :min="1" :max="1000" data-field="drives" @change="(v) => setDrives(i, { count: v })" />
      <NumberField label="Size of each" unit="TB" :value="g.terabytes" :min="0.01" :max="1000" data-field="terabytes" @change="(v) => setDrives(i, { terabytes: v })" />
    </template>
    <ChoiceField label="RAID level" :value="here.pool.layout" :choices="layouts" @change="(layout) => set({ layout })" />
    <NumberField whole label="Hot spares" :value="here.pool.hotSpares ?? 0" :max="1000" @change="(v) => set({ hotSpares: v })" />
    <NumberField label="Reserved" unit="%" :value="here.pool.reservePercent ?? 0" :max="99" @change="(v) => set({ reservePercent: v })" />
    <div class="bar" role="img" :aria-label="`${gigabytes(figures.usableGB)} usable of ${gigabytes(figures.boughtGB)} bought`">
      <span :style="{ width: `${(100 * figures.usableGB) / Math.max(1, figures.boughtGB)}%` }" />
    </div>
    <dl class="figures">
      <dt>usable</dt><dd>{{ gigabytes(figures.usableGB) }} of {{ gigabytes(figures.boughtGB) }}</dd>
      <dt>written a day</dt><dd>{{ gigabytes(figures.gigabytesPerDay) }}</dd>
      <dt>full after</dt><dd>{{ days(figures.retentionDays) }}</dd>
      <dt>at the worst hour</dt><dd>{{ days(figures.worstDays) }}</dd>
      <dt>likely range (80 %)</dt><dd>{{ figures.likelyDays ? `${days(figures.likelyDays.low)} – ${days(figures.likelyDays.high)}` : '—' }}</dd>
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
