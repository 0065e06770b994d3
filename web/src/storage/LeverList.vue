<script setup lang="ts">
import { ref, watch } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import type { Draft, TargetLever } from '../api/types'
import { useSite } from '../site/useSite'
import { change, days, saves, three } from '../ui/figures'
import TermTip from '../ui/TermTip.vue'

/** Single changes, most days for what is lost first. Each can be tried before it is kept. */
const { levers } = defineProps<{ levers: TargetLever[]; who: (channels: string[]) => string }>()
const emit = defineEmits<{ done: [] }>()
const site = useSite()
const tried = ref<number>()
const draft = ref<Draft>()
const problem = ref('')
watch(
  () => [levers, site.stamp],
  () => (tried.value = draft.value = undefined),
)

/** Asks what a change would do, and shows it without keeping it. */
async function attempt(i: number) {
  tried.value = i
  draft.value = undefined
  const body = { version: site.version, edits: levers[i]!.edits }
  const told = await ask(api.POST('/api/plans/{id}/draft', { params: site.here, body }))
  if (tried.value !== i) return
  draft.value = told.data
  problem.value = told.problem
}
function make(l: TargetLever) {
  emit('done')
  site.change(l.edits ?? [])
}
const names = (l: TargetLever) => (l.channels ?? []).map((id) => site.channels.get(id)?.name).join(', ')
const poolName = (id: string) => site.plan?.recorders.flatMap((r) => r.pools).find((p) => p.id === id)?.name ?? id
function price(l: TargetLever) {
  if (l.price == null) return 'not known'
  return l.price ? `${three(l.price)} ${site.plan?.prices?.currency ?? ''}` : 'none'
}
</script>

<template>
  <div v-if="levers.length">
    <h2><TermTip word="lever">One change by itself</TermTip></h2>
    <table data-test="levers">
      <thead>
        <tr>
          <th scope="col">Channel or pool</th>
          <th scope="col">change</th>
          <th scope="col" class="number">days</th>
          <th scope="col" class="number">GB a day</th>
          <th scope="col" class="number">events missed a day</th>
          <th scope="col" class="number">price</th>
          <th scope="col"><span class="visually-hidden">try it</span></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="(l, i) in levers" :key="i">
          <tr :data-lever="l.channels?.[0] ?? l.pool">
            <th scope="row" :title="names(l)">{{ l.channels?.length ? who(l.channels) : poolName(l.pool) }}</th>
            <td>{{ (l.words ?? []).join('; ') }}{{ saves(l.saves) }}</td>
            <td class="number">{{ change(l.moreDays) || '0' }}</td>
            <td class="number">{{ change(-l.savesGigabytesPerDay) || '0' }}</td>
            <td class="number">{{ change(l.lostPerDay) || 'none' }}{{ l.lostPerDay < 0 ? ' (won)' : '' }}</td>
            <td class="number">{{ price(l) }}</td>
            <td>
              <button
                type="button"
                class="plain-button link"
                data-test="try"
                :aria-label="`Try it: ${l.channels?.length ? who(l.channels) : poolName(l.pool)}, ${(l.words ?? []).join('; ')}`"
                @click="attempt(i)"
              >
                Try it
              </button>
            </td>
          </tr>
          <tr v-if="tried === i" class="tried" data-test="tried">
            <td colspan="7">
              <span v-if="draft"
                >With it:
                <template v-for="p in draft.pools" :key="p.id"
                  ><b>{{ poolName(p.id) }} {{ days(p.days) }}</b> for {{ days(p.daysNow) }}, </template
                >{{ three(draft.gigabytesPerDay) }} GB a day,
                {{ change(draft.evidenceChange.missedPerDay) || 'no' }} events a day missed more. Nothing is changed
                yet.</span
              >
              <span v-else-if="problem" class="short">{{ problem }}</span>
              <span v-else class="soft">Trying…</span>
              <span class="acts">
                <button type="button" class="act" data-test="keep-lever" @click="make(l)">Apply</button>
                <button type="button" class="plain-button link" @click="tried = undefined">Cancel</button>
              </span>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped src="./changes.css"></style>

<style scoped>
td:last-child {
  white-space: nowrap;
}

h2 {
  margin: 14px 0 2px;
}

.tried {
  background: var(--band);
}

.tried td {
  white-space: normal;
  padding: 6px 8px;
}

.acts {
  display: inline-flex;
  gap: 12px;
  margin-left: 12px;
}
</style>
