<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { Patch, PatchCost } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { days, gigabytes, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import type { Picture } from './picture/usePicture'

/** A patch that is picked: what moves in it, and what that costs as it is and otherwise. */
const { picture, channel, patch } = defineProps<{ picture: Picture; channel: string; patch: Patch }>()
const { seen } = picture
const site = useSite()
const patchSight = computed(() => seen.value?.sight.patches.find((p) => p.id === patch.id))
const activities = computed(() => (site.plan?.activities ?? []).map((a) => [a.id, a.name] as const))
const setPatch = (part: Partial<Patch>) => picture.change([{ setPatch: { channel, patch: { ...patch, ...part } } }])

const { data: cost, failure } = useAnswer(
  () => [site.stamp, channel, patch.id],
  () =>
    api.GET('/api/plans/{id}/channels/{channel}/patches/{patch}/cost', {
      params: { path: { id: site.planId, channel, patch: patch.id } },
    }),
  { keep: true },
)
const rows = computed(() => {
  const c = cost.value
  if (!c) return []
  const all: [string, PatchCost['now'] | undefined][] = [
    ['with nothing ignored', c.unmasked],
    ['as it is', c.now],
    ['if nothing moved', c.without],
  ]
  return all.flatMap(([name, f]) => (f ? [{ name, f }] : []))
})
/** What is said to move somewhere in the whole picture already, and is the same as here: it would count twice. */
const twice = computed(() => {
  const nuisance = site.channels.get(channel)?.nuisance
  return nuisance && nuisance === patch.activity
    ? (site.plan?.activities?.find((a) => a.id === nuisance)?.name ?? '')
    : ''
})
const notTwice = () => picture.change([{ setCells: { columns: ['nuisance'], rows: [{ channel, values: [''] }] } }])
const mask = () =>
  picture.change([
    {
      setArea: {
        channel,
        area: { id: picture.freeArea(), name: patch.name, ignore: true, points: patch.points },
      },
    },
  ])
</script>

<template>
  <div>
    <ChoiceField
      label="What moves"
      :value="patch.activity"
      :choices="activities"
      @change="(activity) => setPatch({ activity })"
    />
    <NumberField
      label="What moves covers"
      unit="%"
      :value="patch.blobPercent"
      :min="0.001"
      :max="100"
      @change="(blobPercent) => setPatch({ blobPercent })"
    />
    <p v-if="twice" data-test="twice">
      “{{ twice }}” is nuisance of the whole channel as well, so it counts twice. Is it what moves here?
      <button type="button" class="act quiet" data-test="not-twice" @click="notTwice">It is: count it here only</button>
    </p>
    <p v-if="patchSight" data-test="patch-says">
      {{ three(patchSight.happensPerDay) }} a day move; {{ three(patchSight.passesPercent) }} % are in sight,
      <b>{{ three(patchSight.triggersPerDay) }}</b> start a recording.
      <template v-if="patchSight.unmaskedPercent > patchSight.passesPercent + 0.05"
        >With nothing ignored {{ three(patchSight.unmaskedPercent) }} % would be.</template
      >
    </p>
    <table v-if="rows.length" data-test="patch-cost">
      <caption class="visually-hidden">
        What it costs
      </caption>
      <thead>
        <tr class="soft">
          <td />
          <th scope="col">a day</th>
          <th scope="col">GB a day</th>
          <th scope="col">kept</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="{ name, f } in rows" :key="name">
          <th scope="row">{{ name }}</th>
          <td>{{ f.triggersPerDay < 0.05 ? '0' : three(f.triggersPerDay) }}</td>
          <td>{{ gigabytes(f.gbPerDay) }}</td>
          <td>{{ days(f.keptDays) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="failure" class="short">{{ failure }}</p>
    <button
      v-if="cost && cost.now.triggersPerDay > 0.05"
      type="button"
      class="act quiet"
      data-test="mask"
      @click="mask"
    >
      Ignore what moves there
    </button>
  </div>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  font-size: var(--second);
}

th {
  font-weight: 400;
  text-align: left;
}

td,
thead th {
  text-align: right;
}

p {
  margin: 4px 0;
}
</style>
