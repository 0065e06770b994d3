<script setup lang="ts">
import { onMounted, ref, useId, useTemplateRef } from 'vue'

import type { TableColumn } from '../../api/types'
import { asRead } from '../../habits/now'

/** The field in a cell. Enter and Tab keep, Ctrl+Enter keeps in all selected cells, Esc leaves it. */
const props = defineProps<{ text: string; all: boolean; column: TableColumn }>()
const emit = defineEmits<{ commit: [text: string, move: [number, number], everywhere: boolean]; leave: [] }>()
const field = useTemplateRef('field')
const before = props.column.numeric ? asRead(props.text) : props.text
const typed = ref(before)
const id = useId()
let done = false

function finish(move: [number, number], everywhere = false) {
  if (done) return
  done = true
  emit('commit', typed.value === before ? props.text : typed.value, move, everywhere)
}

function key(event: KeyboardEvent) {
  event.stopPropagation()
  if (event.key === 'Enter') finish([event.shiftKey ? -1 : 1, 0], event.ctrlKey || event.metaKey)
  else if (event.key === 'Tab') finish([0, event.shiftKey ? -1 : 1])
  else if (event.key === 'Escape') {
    done = true
    emit('leave')
  } else return
  event.preventDefault()
}

onMounted(() => {
  field.value!.focus()
  if (props.all) field.value!.select()
})
</script>

<template>
  <input
    ref="field"
    v-model="typed"
    class="editor"
    :aria-label="column.title"
    :list="column.choices?.length ? id : undefined"
    autocomplete="off"
    @keydown="key"
    @blur="finish([0, 0])"
  />
  <datalist v-if="column.choices?.length" :id="id"><option v-for="c in column.choices" :key="c" :value="c" /></datalist>
</template>

<style scoped>
.editor {
  position: absolute;
  inset: 0;
  width: 100%;
  min-width: 90px;
  border: 2px solid var(--base);
  background: var(--sheet);
  padding: 0 4px;
  text-align: inherit;
}
</style>
