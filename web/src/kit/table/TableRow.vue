<script setup lang="ts">
import { computed } from 'vue'

import type { TableColumn } from '../../api/types'
import CellEditor from './CellEditor.vue'
import { cellKey, useTable } from './useTable'

/** One row of the channel table. It is drawn again when its own texts or marks change, and for nothing else. */
const props = defineProps<{
  row: number
  id: string
  columns: TableColumn[]
  places: { width: string; left?: string }[]
  at: number // the column the planner is in, -1 for none
  left: number // the columns selected, -1 for none
  right: number
  many: boolean // whether more than one cell is selected
  editing?: { text: string; all: boolean }
}>()
const emit = defineEmits<{ commit: [text: string, move: [number, number], everywhere: boolean]; leave: []; grip: [event: PointerEvent]; down: [event: PointerEvent, column: number]; over: [column: number] }>()
const table = useTable()
const separator = '\u0001'

// Texts joined into one are compared as one.
const joined = computed(() => props.columns.map((c) => (props.id ? table.text(props.id, c.id) : '')).join(separator))
const texts = computed(() => joined.value.split(separator))
const reasons = computed(() => props.columns.map((c) => table.refused.get(cellKey(props.id, c.id))?.reason ?? '').join(separator))
const bad = computed(() => reasons.value.split(separator))
const departing = computed(() => (table.rows.get(props.id)?.departs ?? []).join(separator))
const departs = computed(() => new Set(departing.value.split(separator)))
</script>

<template>
  <span class="grip" :class="{ movable: id }" aria-hidden="true" :title="id ? 'Drag to renumber, Alt+arrow keys' : ''" @pointerdown="id && emit('grip', $event)">{{ id ? '⋮' : '+' }}</span>
  <span
    v-for="(c, j) in columns" :id="`cell-${row}-${j}`" :key="c.id" class="cell" role="gridcell" :aria-colindex="j + 1" :data-column="c.id" :aria-selected="j >= left && j <= right" :aria-invalid="!!bad[j]"
    :title="bad[j] || (departs.has(c.id) ? 'Differs from its camera kind' : undefined)"
    :class="{ numeric: c.numeric, frozen: j < 2, held: many && j >= left && j <= right, at: at === j, bad: bad[j], departs: departs.has(c.id) }" :style="places[j]"
    @pointerdown="emit('down', $event, j)" @pointerenter="emit('over', j)"
  ><CellEditor v-if="editing && at === j" :text="editing.text" :all="!editing.all" :column="c" @commit="(...all) => emit('commit', ...all)" @leave="emit('leave')" /><template v-else>{{ id ? texts[j] : j === 1 ? 'New channel' : '' }}</template></span>
</template>
