<script setup lang="ts">
import type { Compared } from '../api/types'
import { isBest, rows } from './figures'

/** The verdicts of variants in columns, the best of each row marked. */
defineProps<{ list: Compared[]; second?: Compared; open: string }>()
defineEmits<{ look: [id: string]; lead: [id: string]; show: [id: string]; adopt: [id: string] }>()
</script>

<template>
  <div class="scroll">
    <table data-test="verdicts">
      <thead>
        <tr>
          <th scope="col"><span class="visually-hidden">figure</span></th>
          <th
            v-for="(c, i) in list"
            :key="c.id"
            scope="col"
            :class="{ second: second?.id === c.id }"
            :data-column="c.id"
          >
            <b>{{ c.name }}</b> <i v-if="c.adopted">adopted</i>
            <span class="acts">
              <span v-if="i === 0" class="soft">the baseline</span>
              <template v-else>
                <button
                  type="button"
                  class="plain-button link"
                  :aria-pressed="second?.id === c.id"
                  :data-look="c.id"
                  @click="$emit('look', c.id)"
                >
                  What differs
                </button>
                <button type="button" class="plain-button link" @click="$emit('lead', c.id)">
                  Make it the baseline
                </button>
              </template>
              <button
                v-if="!c.adopted"
                type="button"
                class="plain-button link"
                :data-adopt="c.id"
                @click="$emit('adopt', c.id)"
              >
                Adopt
              </button>
              <button v-if="c.id !== open" type="button" class="plain-button link" @click="$emit('show', c.id)">
                Open
              </button>
              <span v-else class="soft">open</span>
            </span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.name">
          <th scope="row">{{ r.name }}</th>
          <td v-for="c in list" :key="c.id" :class="{ best: isBest(r, c, list), second: second?.id === c.id }">
            {{ r.say(c) }}<span v-if="isBest(r, c, list)" class="mark"> best</span>
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
}

th,
td {
  text-align: left;
  font-weight: 400;
  padding: 4px 18px 4px 8px;
  vertical-align: top;
  min-width: 170px;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

tbody th {
  color: var(--soft);
  min-width: 0;
}

.second {
  background: var(--band);
}

.best {
  font-weight: 600;
}

.mark {
  font-size: 11.5px;
}

i {
  color: var(--soft);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  font-size: 12.5px;
}

@media print {
  .acts {
    display: none;
  }
}
</style>
