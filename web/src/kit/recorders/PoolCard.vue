<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { api, inWords } from '../../api/client'
import type { Pool, Recorder, Scenario } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { days, gigabytes, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import TextField from '../../ui/TextField.vue'

/** One pool: its drives as a picture, what of them footage may fill, and what if one fails or is added. */
const props = defineProps<{ recorder: Recorder; pool: Pool }>()
const site = useSite()
const problem = ref('')
const layouts = [['span', 'no RAID'], ['raid0', 'RAID 0'], ['raid1', 'RAID 1'], ['raid5', 'RAID 5'], ['raid6', 'RAID 6'], ['raid10', 'RAID 10']] as const
const figures = computed(() => site.pools.find((p) => p.id === props.pool.id))

/** TiB in a TB: 10¹² of 2⁴⁰ bytes. */
const TIB = 1e12 / 2 ** 40
const tibWords = 'Drives are sold by the TB of a million million bytes. Some recorders show TiB of 1024 × 1024 × 1024 × 1024 bytes and often call them TB: the same drive then seems a tenth smaller. Type what is printed on the drive.'

function set(change: Partial<Pool>) {
  problem.value = ''
  site.change([{ setPool: { recorder: props.recorder.id, pool: { ...props.pool, ...change } } }], undefined, (p) => (problem.value = inWords(p)))
}

function setDrives(i: number, change: Partial<Pool['drives'][number]>) {
  set({ drives: props.pool.drives.map((g, k) => (k === i ? { ...g, ...change } : g)).filter((g) => g.count > 0) })
}

function remove() {
  problem.value = ''
  site.change([{ removePool: { pool: props.pool.id } }], undefined, (p) => (problem.value = inWords(p)))
}

/** What the bought terabytes become. */
const parts = computed(() => {
  const f = figures.value
  if (!f || !f.boughtGB) return []
  return [
    { id: 'usable', name: 'for footage', gb: f.usableGB },
    { id: 'redundant', name: 'mirrors, parity', gb: f.redundantGB },
    { id: 'spare', name: 'hot spares', gb: f.spareGB },
    { id: 'reserve', name: 'kept free', gb: f.reserveGB },
  ].filter((p) => p.gb > 0.5).map((p) => ({ ...p, percent: (100 * p.gb) / f.boughtGB }))
})
const drives = computed(() => props.pool.drives.flatMap((g) => Array.from({ length: Math.min(g.count, 48) }, () => g.terabytes)))

const scenarios = ref<Scenario[]>([])
watch(
  () => [site.version, props.pool.id],
  async () => {
    const { data } = await api.GET('/api/plans/{id}/pools/{pool}/whatif', { params: { path: { id: site.planId, pool: props.pool.id } } }).catch(() => ({ data: undefined }))
    scenarios.value = data ?? []
  },
  { immediate: true },
)
</script>

<template>
  <div class="pool" :data-pool="pool.id">
    <div class="settings">
      <TextField label="Pool" :value="pool.name" :maxlength="100" @change="(name) => name && set({ name })" />
      <div v-for="(g, i) in pool.drives" :key="i" class="group">
        <NumberField whole label="Drives" :value="g.count" :min="0" :max="1000" data-field="count" @change="(v) => setDrives(i, { count: v })" />
        <NumberField label="Size of each" unit="TB" :value="g.terabytes" :min="0.01" :max="1000" data-field="terabytes" @change="(v) => setDrives(i, { terabytes: v })" />
        <p class="soft tib" :title="tibWords">as printed on the drive, 10¹² bytes; {{ three(g.terabytes * TIB) }} TiB where a recorder counts in 1024s</p>
        <NumberField label="Rated for" none="unknown" unit="TB/y" :value="g.yearlyTB" :max="1000000" @change="(v) => setDrives(i, { yearlyTB: v || undefined })" />
      </div>
      <button type="button" class="plain-button link" @click="set({ drives: [...pool.drives, { count: 1, terabytes: 4 }] })">Drives of another size</button>
      <ChoiceField label="RAID level" :value="pool.layout" :choices="layouts" @change="(layout) => set({ layout })" />
      <NumberField whole label="Hot spares" :value="pool.hotSpares ?? 0" :max="1000" @change="(v) => set({ hotSpares: v || undefined })" />
      <NumberField label="Reserved" unit="%" :value="pool.reservePercent ?? 0" :max="99" @change="(v) => set({ reservePercent: v || undefined })" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="button" class="plain-button link short" @click="remove">Remove this pool</button>
    </div>
    <div v-if="figures" class="picture">
      <div class="drives" aria-hidden="true">
        <span v-for="(tb, i) in drives" :key="i" class="drive" :style="{ width: `${Math.max(22, Math.min(64, 8 * Math.sqrt(tb) + 8))}px` }">{{ tb }}</span>
      </div>
      <div class="bought" role="img" :aria-label="`Of ${gigabytes(figures.boughtGB)} bought: ${parts.map((p) => `${gigabytes(p.gb)} ${p.name}`).join(', ')}`">
        <span v-for="p in parts" :key="p.id" :class="p.id" :style="{ width: `${p.percent}%` }" />
      </div>
      <p class="key">
        <span v-for="p in parts" :key="p.id"><i :class="p.id" /> {{ gigabytes(p.gb) }} {{ p.name }}</span>
      </p>
      <p><b>{{ gigabytes(figures.usableGB) }}</b> usable of {{ gigabytes(figures.boughtGB) }} bought · {{ gigabytes(figures.gigabytesPerDay) }} a day · <b>{{ figures.retentionDays == null ? 'never full' : days(figures.retentionDays) }}</b></p>
      <table>
        <caption class="visually-hidden">What if</caption>
        <tr v-for="s in scenarios" :key="s.id" :data-scenario="s.id">
          <th scope="row">{{ s.sentence }}</th>
          <td>
            {{ s.consequence }}
            <template v-if="s.lostPercent < 100">Then <b>{{ s.poolDays == null ? 'never full' : days(s.poolDays) }}</b><template v-if="s.keptDays != null && s.requiredDays != null">; the channel furthest from its days keeps <b :class="{ short: !s.holds }">{{ three(s.keptDays) }}</b> of {{ s.requiredDays }}</template>.</template>
            <button v-if="s.edit" type="button" class="plain-button link add" @click="site.change([s.edit])">Add it</button>
          </td>
        </tr>
      </table>
    </div>
  </div>
</template>

<style scoped>
.tib {
  margin: 0 0 3px;
  font-size: 11.5px;
}

.pool {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 20px;
  padding-bottom: 10px;
  border-bottom: 1px solid var(--rule);
}

.pool:last-child {
  border: 0;
}

.group {
  padding-bottom: 3px;
  margin-bottom: 3px;
  border-bottom: 1px dotted var(--rule);
}

.drives {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin-bottom: 8px;
}

.drive {
  height: 34px;
  border: 1px solid var(--soft);
  border-radius: 3px;
  font-size: 11px;
  text-align: center;
  line-height: 32px;
  background: linear-gradient(var(--band), var(--sheet));
}

.bought {
  display: flex;
  height: 18px;
  max-width: 560px;
  border: 1px solid var(--soft);
}

.usable {
  background: var(--base);
}

.redundant {
  background: repeating-linear-gradient(90deg, var(--base) 0 1px, transparent 1px 4px);
}

.spare {
  background: repeating-linear-gradient(135deg, var(--soft) 0 1px, transparent 1px 5px);
}

.reserve {
  background: var(--rule);
}

.key {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin: 3px 0 8px;
  font-size: 12px;
  color: var(--soft);
}

.key i {
  display: inline-block;
  width: 11px;
  height: 9px;
  border: 1px solid var(--soft);
}

table {
  border-collapse: collapse;
  font-size: 12.5px;
}

th {
  text-align: left;
  font-weight: 600;
  white-space: nowrap;
  padding-right: 14px;
  vertical-align: top;
}

.add {
  margin-left: 6px;
}

td {
  padding-bottom: 4px;
}

@media (max-width: 760px) {
  .pool {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
