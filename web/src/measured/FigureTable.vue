<script setup lang="ts">
import type { FoundFigure } from '../api/types'
import { useSite } from '../site/useSite'
import { change, three } from '../ui/figures'
import { keyOf } from './useMeasured'

/** Figures that were planned and found, with whether it is more than chance, and what explains it. */
defineProps<{ figures: FoundFigure[]; inHand?: FoundFigure; quiet?: boolean }>()
const emit = defineEmits<{ show: [figure: FoundFigure] }>()
const site = useSite()
const planned = (f: FoundFigure) => f.plannedText ?? three(f.planned)
const seen = (f: FoundFigure) => f.foundText ?? three(f.found)
const chance = (f: FoundFigure) =>
  f.moreThanChance ? 'no' : f.chance > 0.2 ? 'yes' : `may be, ${three(100 * f.chance)} %`
const read = (f: FoundFigure) => f.kind === 'setting' || f.kind === 'seconds'
const correct = (f: FoundFigure) => site.change(f.edits)
</script>

<template>
  <div class="scroll">
    <table>
      <thead>
        <tr>
          <th scope="col">Where</th>
          <th scope="col">What</th>
          <th scope="col" class="figure">Planned</th>
          <th scope="col" class="figure">Found</th>
          <th scope="col" title="Whether chance alone may bring it so far from the plan">Chance?</th>
          <th v-if="!quiet" scope="col" class="figure" title="What the days kept become more if the plan says so">
            Days
          </th>
          <th scope="col">Best explained by</th>
          <th v-if="site.role === 'planner'" scope="col"><span class="visually-hidden">Correct</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="f in figures" :key="keyOf(f)" :class="{ held: inHand && keyOf(f) === keyOf(inHand) }">
          <th scope="row">
            <button
              v-if="f.hours?.length"
              type="button"
              class="plain-button link"
              :aria-pressed="!!inHand && keyOf(f) === keyOf(inHand)"
              @click="emit('show', f)"
            >
              {{ f.name }}
            </button>
            <template v-else>{{ f.name }}</template>
          </th>
          <td>{{ f.what }}</td>
          <td class="figure">{{ planned(f) }}</td>
          <td
            class="figure"
            :title="read(f) ? undefined : `${three(f.low)} to ${three(f.high)}, four times out of five`"
          >
            {{ seen(f) }}
          </td>
          <td :class="{ short: f.moreThanChance }">{{ chance(f) }}</td>
          <td v-if="!quiet" class="figure">{{ change(f.daysWon) || '0' }}</td>
          <td>{{ f.words }}</td>
          <td v-if="site.role === 'planner'" class="act-cell">
            <button v-if="f.edits.length" type="button" class="plain-button link" @click="correct(f)">
              {{ read(f) ? 'Take it over' : quiet ? 'Write it in as measured' : 'Correct it' }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}

table {
  border-collapse: collapse;
  width: 100%;
}

th,
td {
  text-align: left;
  font-weight: 400;
  padding: 4px 10px 4px 0;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}

td:nth-last-child(2) {
  white-space: normal;
  min-width: 140px;
}

thead th {
  color: var(--soft);
}

.figure {
  text-align: right;
  font-variant-numeric: tabular-nums;
}

.held {
  background: var(--selected);
}

.link {
  min-height: 24px;
}
</style>
