<script setup lang="ts">
import type { FoundFigure } from '../api/types'
import { useSite } from '../site/useSite'
import { change, three } from '../ui/figures'
import { keyOf } from './useMeasured'

/** Figures that were planned and found, with whether it is more than chance, and what explains it. */
defineProps<{ figures: FoundFigure[]; inHand?: FoundFigure; quiet?: boolean; left?: ReadonlySet<string> }>()
const emit = defineEmits<{ show: [figure: FoundFigure]; leave: [key: string, out: boolean] }>()
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
            <input
              v-if="left && f.edits.length && site.role === 'planner'"
              type="checkbox"
              :checked="!left.has(keyOf(f))"
              :aria-label="`Correct ${f.name}, ${f.what}`"
              @change="emit('leave', keyOf(f), !($event.target as HTMLInputElement).checked)"
            />
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
          <td class="figure planned">{{ planned(f) }}</td>
          <td
            class="figure found"
            :title="read(f) ? undefined : `${three(f.low)} to ${three(f.high)}, four times out of five`"
          >
            {{ seen(f) }}
          </td>
          <td :class="{ short: f.moreThanChance }">{{ chance(f) }}</td>
          <td v-if="!quiet" class="figure days">{{ change(f.daysWon) || '0' }}</td>
          <td>{{ f.words }}</td>
          <td v-if="site.role === 'planner'" class="act-cell">
            <button v-if="f.edits.length" type="button" class="plain-button link" @click="correct(f)">
              {{ read(f) ? 'Take it over' : quiet ? 'Write it in as measured' : 'Correct it' }}
            </button>
            <RouterLink v-if="read(f)" class="link other" :to="{ name: 'handover' }">Set it there</RouterLink>
            <RouterLink
              v-if="f.kind === 'silence'"
              class="link"
              :to="{ name: 'measured', params: { part: 'missed' }, query: { channel: f.id, since: f.since } }"
              >Why?</RouterLink
            >
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

input {
  margin: 0 8px 0 0;
  vertical-align: -2px;
}

.other {
  display: block;
}

.held {
  background: var(--selected);
}

.link {
  min-height: 24px;
}

/* On a phone a figure is a block: where and what, then planned and found with their words. */
@media (max-width: 600px) {
  thead {
    position: absolute;
    clip-path: inset(50%);
  }

  tr {
    display: flex;
    flex-wrap: wrap;
    gap: 0 12px;
    padding: 6px 0;
    border-bottom: 1px solid var(--rule);
  }

  th,
  td {
    border: 0;
    padding: 1px 0;
    white-space: normal;
  }

  tbody th {
    flex: 1 0 100%;
  }

  td:nth-child(2) {
    flex: 1 0 100%;
    color: var(--soft);
  }

  td:nth-child(5)::before {
    content: 'by chance? ';
  }

  .planned::before {
    content: 'planned ';
  }

  .found::before {
    content: 'found ';
  }

  .days::after {
    content: ' days';
  }
}
</style>
