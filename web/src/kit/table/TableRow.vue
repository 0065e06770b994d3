<script setup lang="ts">
import { computed } from 'vue'

import type { TableColumn } from '../../api/types'
import { useSite } from '../../site/useSite'
import { FROZEN } from './useColumns'
import CellEditor from './CellEditor.vue'
import { cellKey, useTable } from './useTable'

/** One row of the channel table. It is drawn again when its own texts or marks change, and for nothing else. */
const props = defineProps<{
  row: number
  id: string
  columns: TableColumn[]
  shown: number[] // the columns that there are cells for
  places: { width: string; left: string }[]
  at: number // the column the planner is in, -1 for none
  left: number // the columns selected, -1 for none
  right: number
  many: boolean // whether more than one cell is selected
  target: boolean // whether rows that are dragged would come before it
  editing?: { text: string; all: boolean }
}>()
const emit = defineEmits<{
  commit: [text: string, move: [number, number], everywhere: boolean]
  leave: []
  grip: [event: PointerEvent]
  down: [event: PointerEvent, column: number]
  over: [column: number]
}>()
const site = useSite()
const table = useTable()
const PADDING = 13 // of a cell, with its edge, in pixels
const separator = '\u0001'

const cells = computed(() => props.shown.flatMap((j) => (props.columns[j] ? [{ c: props.columns[j], j }] : [])))

// Texts joined into one are compared as one.
const joined = computed(() => cells.value.map(({ c }) => (props.id ? table.text(props.id, c.id) : '')).join(separator))
const texts = computed(() => joined.value.split(separator))
const reasons = computed(() =>
  cells.value.map(({ c }) => table.refused.get(cellKey(props.id, c.id))?.reason ?? '').join(separator),
)
const bad = computed(() => reasons.value.split(separator))
/** Cells whose text may be wider than they are. Only these are clipped, as clipping all costs half the frames. */
const tight = computed(() =>
  texts.value.map((text, k) => {
    const j = props.shown[k] ?? 0
    return widest(text, j < FROZEN) > parseFloat(props.places[j]?.width ?? '0') - PADDING
  }),
)
const departing = computed(() => (table.rows.get(props.id)?.departs ?? []).join(separator))
const departs = computed(() => new Set(departing.value.split(separator)))

/** How wide a text is at most, in pixels: as if all letters were the widest where nothing covers what stands out. */
function widest(text: string, uncovered: boolean): number {
  const plain = uncovered ? 13 : 8
  let width = 0
  for (const letter of text) width += letter < '\u0300' ? plain : 14
  return width
}
</script>

<template>
  <div
    class="row"
    role="row"
    :aria-rowindex="row + 2"
    :data-row="id || 'new'"
    :class="{ band: row % 2, empty: site.channels.get(id)?.noCamera, target }"
  >
    <span
      class="grip"
      :class="{ movable: id }"
      aria-hidden="true"
      :title="id ? 'Drag to renumber, Alt+arrow keys' : ''"
      @pointerdown="id && emit('grip', $event)"
      >{{ id ? '⋮' : '+' }}</span
    >
    <span
      v-for="({ c, j }, k) in cells"
      :id="`cell-${row}-${j}`"
      :key="c.id"
      class="cell"
      role="gridcell"
      :aria-colindex="j + 1"
      :data-column="c.id"
      :data-own="bad[k] ? '' : undefined"
      :aria-selected="j >= left && j <= right"
      :aria-invalid="!!bad[k]"
      :title="bad[k] || (departs.has(c.id) ? 'Differs from its camera kind' : undefined)"
      :class="{
        numeric: c.numeric,
        frozen: j < FROZEN,
        held: many && j >= left && j <= right,
        at: at === j,
        bad: bad[k],
        departs: departs.has(c.id),
        tight: tight[k],
      }"
      :style="places[j]"
      @pointerdown="emit('down', $event, j)"
      @pointerenter="emit('over', j)"
      ><CellEditor
        v-if="editing && at === j"
        :text="editing.text"
        :all="!editing.all"
        :column="c"
        @commit="(...all) => emit('commit', ...all)"
        @leave="emit('leave')"
      /><template v-else>{{ id ? texts[k] : j === 1 ? 'New channel' : '' }}</template></span
    >
  </div>
</template>

<style scoped>
.row {
  position: absolute;
  top: 0;
  height: 25px;
  display: flex;
}

.row.band .cell {
  background: color-mix(in srgb, var(--band) 30%, var(--sheet));
}

.row .grip,
.row .cell {
  position: absolute;
  flex: none;
  height: 25px;
  line-height: 24px;
  border-bottom: 1px solid var(--rule);
  border-right: 1px solid color-mix(in srgb, var(--rule) 60%, transparent);
  white-space: nowrap;
  padding: 0 6px;
  background: var(--sheet);
}

.row .grip {
  position: sticky;
  z-index: 2;
  left: 0;
  width: 26px;
  padding: 0;
  text-align: center;
  color: var(--soft);
}

.row .grip.movable {
  cursor: grab;
}

.row .cell.tight {
  overflow: hidden;
  text-overflow: ellipsis;
}

.row .cell.frozen {
  position: sticky;
  z-index: 1;
}

.row .cell.frozen.at {
  z-index: 2;
}

.numeric,
.row .numeric {
  text-align: right;
}

.row.empty .cell {
  color: var(--soft);
  font-style: italic;
}

.row .cell.held {
  background: var(--selected) !important;
}

.row .cell.at {
  outline: 2px solid var(--base);
  outline-offset: -2px;
  overflow: visible;
  z-index: 1;
}

.row .cell.departs {
  text-decoration: underline dotted var(--alarm) 1.5px;
  text-underline-offset: 3px;
}

.row .cell.bad {
  color: var(--short);
  box-shadow: inset 0 -2px 0 var(--short);
}

.row[data-row='new'] .cell {
  color: var(--soft);
}

.row.target {
  box-shadow: 0 -2px 0 var(--base);
  z-index: 2;
}
</style>
