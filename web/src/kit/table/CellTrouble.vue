<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { parted, type Bad, type Hand } from './hands'
import { useTable } from './useTable'
import { vTyped } from '../../ui/typed'

/** What was refused in cells: all of it stays in hand, can be mended here, and the rest of it set. */
const site = useSite()
const table = useTable()
const hands = computed(() =>
  table.hands.map((hand) => {
    const { good, rest } = parted(hand)
    const rows = new Set(good.flatMap((g) => g.rows)).size
    const cells = rest.reduce((n, r) => n + r.bad.length, 0)
    return { hand, rows, left: `${count(cells, 'cell')} of ${count(rest.length, 'row')}` }
  }),
)
function place(hand: Hand, bad: Bad): string {
  const channel = hand.cells.rows[bad.row]!.channel
  const name = channel ? (site.channels.get(channel)?.name ?? channel) : `new row ${bad.row + 1}`
  const column = table.columns.find((c) => c.id === hand.cells.columns[bad.column])
  return column ? `${name}, ${column.title}` : name
}
</script>

<template>
  <div v-if="hands.length" class="trouble" role="alert" data-test="cell-trouble">
    <template v-for="({ hand, rows, left }, k) in hands" :key="k">
      <ul>
        <li v-for="b in hand.bad" :key="`${b.row} ${b.column}`">
          <span class="short">{{ place(hand, b) }}: {{ b.reason }}</span>
          <input
            v-if="b.column >= 0"
            v-typed="hand.cells.rows[b.row]!.values[b.column]"
            :aria-label="place(hand, b)"
            data-test="mend-cell"
            @change="table.mend(hand, b, ($event.target as HTMLInputElement).value)"
          />
        </li>
      </ul>
      <p>
        Nothing of it was changed; it stays in hand until it is right.
        <button v-if="rows" type="button" class="act quiet" data-test="set-rest" @click="table.setGood(hand)">
          Set the rest of it: {{ count(rows, 'row') }} but for {{ left }}
        </button>
        <button type="button" class="plain-button link" data-test="give-up" @click="table.forget()">Give it up</button>
      </p>
    </template>
  </div>
</template>

<style scoped>
.trouble {
  padding: 4px 16px;
  background: var(--band);
}

.trouble p button {
  margin-left: 8px;
}

.trouble p {
  margin: 0 0 2px;
}

ul {
  max-height: 112px;
  margin: 0;
  padding: 0;
  overflow: auto;
  list-style: none;
}

li {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
</style>
