<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CameraReport, WalkRecord, WalkResult } from '../../api/types'
import { ago } from '../sheets/ago'

/** A walk with all that was seen of it: expected against seen, everybody's. */
const props = defineProps<{
  walk: CameraReport['walks'][number]
  decide: (about: string, said: Pick<WalkRecord, 'decision' | 'aside'>) => Promise<boolean>
  mayDecide: boolean
}>()
const results = computed(() => props.walk.results.filter((r) => r.setAside?.aside?.reason !== 'Completed.'))
const text = (s: number | null | undefined, none?: boolean) =>
  s == null ? (none ? 'none' : '–') : `${s.toFixed(1).replace('-', '−')} s`
const rows = (r: WalkResult) => [
  { what: 'sign', planned: text(r.walk!.planned[0], true), seen: text(r.walk!.sign, r.walk!.noSign) },
  { what: 'begins', planned: text(r.walk!.planned[1], true), seen: text(r.walk!.first, r.walk!.noShot) },
  { what: 'ends', planned: text(r.walk!.planned[2], true), seen: text(r.walk!.last, r.walk!.noShot) },
]
const why = (r: WalkResult) =>
  r.setAside
    ? `set aside: ${r.setAside.aside!.reason}`
    : r.odd
      ? r.odd
      : r.stale
        ? 'the plan expects something else since'
        : ''
const asking = ref('')
const reason = ref('')
async function setAside(id: string) {
  if (await props.decide(id, { aside: { reason: reason.value.trim() } })) asking.value = reason.value = ''
}
</script>

<template>
  <section :aria-label="walk.name">
    <h3>{{ walk.name }}</h3>
    <p class="soft">{{ walk.do }}</p>
    <table v-if="results.length">
      <thead>
        <tr>
          <th scope="col">by</th>
          <th scope="col"></th>
          <th scope="col" class="number">expected</th>
          <th scope="col" class="number">seen</th>
          <th scope="col"><span class="visually-hidden">What becomes of it</span></th>
        </tr>
      </thead>
      <tbody v-for="r in results" :key="r.id" :class="{ out: why(r) }">
        <tr v-for="(row, i) in rows(r)" :key="row.what">
          <td v-if="i === 0" rowspan="3">
            {{ r.by }}<template v-if="r.author && r.author !== r.by">, sent by {{ r.author }}</template>
            <div class="soft">
              {{ ago(r.at!) }}<template v-if="r.clock === 'phone'">, by the phone’s clock</template>
            </div>
          </td>
          <th scope="row">{{ row.what }}</th>
          <td class="number">{{ row.planned }}</td>
          <td class="number" :class="{ short: r.differ[i] }">
            <component :is="r.differ[i] ? 'b' : 'span'">{{ row.seen }}</component>
          </td>
          <td v-if="i === 0" rowspan="3" class="why">
            <template v-if="why(r)">{{ why(r) }}</template>
            <template v-if="r.walk!.remark"> {{ r.walk!.remark }}</template>
            <template v-if="mayDecide && !r.setAside">
              <button v-if="asking !== r.id" type="button" class="plain-button link" @click="asking = r.id">
                Set aside
              </button>
              <form v-else @submit.prevent="setAside(r.id)">
                <label>Why <input v-model="reason" type="text" maxlength="2000" /></label>
                <button type="submit" class="act" :disabled="!reason.trim()">Save</button>
              </form>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else>Not walked yet.</p>
  </section>
</template>

<style scoped>
h3 {
  margin-top: 16px;
}

p {
  margin: 0 0 4px;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th {
  font-weight: 400;
  color: var(--soft);
  text-align: left;
}

th,
td {
  padding: 2px 8px 2px 0;
  vertical-align: top;
}

.number {
  text-align: right;
}

tbody {
  border-top: 1px solid var(--rule);
}

.out td {
  color: var(--soft);
}

.why {
  max-width: 220px;
  padding-left: 16px;
}
</style>
