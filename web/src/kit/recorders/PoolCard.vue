<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../../api/ask'
import { api, inWords } from '../../api/client'
import type { Pool, Recorder } from '../../api/types'
import PoolForm from '../../forms/PoolForm.vue'
import { useSite } from '../../site/useSite'
import { days, gigabytes, three } from '../../ui/figures'
import TextField from '../../ui/TextField.vue'

/** One pool: its drives as a picture, what of them footage may fill, and what if one fails or is added. */
const props = defineProps<{ recorder: Recorder; pool: Pool }>()
const site = useSite()
const problem = ref('')
const figures = computed(() => site.pools.find((p) => p.id === props.pool.id))

function rename(name: string) {
  site.change([{ setPool: { recorder: props.recorder.id, pool: { ...props.pool, name } } }])
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
    { id: 'reserve', name: 'reserved', gb: f.reserveGB },
  ]
    .filter((p) => p.gb > 0.5)
    .map((p) => ({ ...p, percent: (100 * p.gb) / f.boughtGB }))
})
const drives = computed(() =>
  props.pool.drives.flatMap((g) => Array.from({ length: Math.min(g.count, 48) }, () => g.terabytes)),
)

const { data: scenarios } = useAnswer(
  () => [site.stamp, props.pool.id],
  () => api.GET('/api/plans/{id}/pools/{pool}/whatif', { params: { path: { id: site.planId, pool: props.pool.id } } }),
  { keep: true },
)
</script>

<template>
  <div class="pool" :data-pool="pool.id">
    <div class="settings">
      <TextField label="Pool" :value="pool.name" :maxlength="100" @change="(name) => name && rename(name)" />
      <PoolForm :recorder="recorder.id" :pool="pool" />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="button" class="plain-button link short" @click="remove">Remove this pool</button>
    </div>
    <div v-if="figures" class="picture">
      <div class="drives" aria-hidden="true">
        <span
          v-for="(tb, i) in drives"
          :key="i"
          class="drive"
          :style="{ width: `${Math.max(22, Math.min(64, 8 * Math.sqrt(tb) + 8))}px` }"
          >{{ tb }}</span
        >
      </div>
      <div
        class="bought"
        role="img"
        :aria-label="`Of ${gigabytes(figures.boughtGB)} bought: ${parts.map((p) => `${gigabytes(p.gb)} ${p.name}`).join(', ')}`"
      >
        <span v-for="p in parts" :key="p.id" :class="p.id" :style="{ width: `${p.percent}%` }" />
      </div>
      <p class="key">
        <span v-for="p in parts" :key="p.id"><i :class="p.id" /> {{ gigabytes(p.gb) }} {{ p.name }}</span>
      </p>
      <p>
        <b>{{ gigabytes(figures.usableGB) }}</b> usable of {{ gigabytes(figures.boughtGB) }} bought ·
        {{ gigabytes(figures.gigabytesPerDay) }} a day ·
        <b>{{ figures.retentionDays == null ? 'never full' : days(figures.retentionDays) }}</b>
      </p>
      <table>
        <caption class="visually-hidden">
          What if
        </caption>
        <tr v-for="s in scenarios" :key="s.id" :data-scenario="s.id">
          <th scope="row">{{ s.sentence }}</th>
          <td>
            {{ s.consequence }}
            <template v-if="s.lostPercent < 100"
              >Then <b>{{ s.poolDays == null ? 'never full' : days(s.poolDays) }}</b><template
                v-if="s.keptDays != null && s.requiredDays != null"
                >; the channel furthest from its days keeps
                <b :class="{ short: !s.holds }">{{ three(s.keptDays) }}</b> of {{ s.requiredDays }}</template
              >.</template
            >
            <button v-if="s.edit" type="button" class="plain-button link add" @click="site.change([s.edit])">
              Add it
            </button>
          </td>
        </tr>
      </table>
    </div>
  </div>
</template>

<style scoped>
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

.drives {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  margin-bottom: 8px;
}

.drive {
  height: 34px;
  border: 1px solid var(--soft);
  border-radius: 4px;
  font-size: var(--axis);
  text-align: center;
  line-height: 32px;
  background: linear-gradient(var(--band), var(--sheet));
}

.bought {
  display: flex;
  height: 18px;
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
  font-size: var(--second);
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
  font-size: var(--second);
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
