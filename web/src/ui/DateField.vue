<script setup lang="ts">
import { ElInput } from 'element-plus'
import { ref, useId, watch } from 'vue'

import { orderOf, readDate, writeDate } from './date'

/** A date, typed. It is handed on once, when it is complete; one that is refused stays, with the reason below it. */
const props = defineProps<{ value: string; label: string; refuse?: (date: string) => string }>()
const emit = defineEmits<{ change: [date: string] }>()
const id = useId()
const order = orderOf(navigator.language).join(', ')
const text = ref(writeDate(props.value))
const why = ref('')
watch(
  () => props.value,
  () => {
    text.value = writeDate(props.value)
    why.value = ''
  },
)

function commit() {
  why.value = ''
  const read = readDate(text.value)
  if ('why' in read) {
    why.value = read.why
    return
  }
  why.value = props.refuse?.(read.value) ?? ''
  if (why.value) return
  text.value = writeDate(read.value)
  if (read.value !== props.value) emit('change', read.value)
}
</script>

<template>
  <ElInput
    :id="id"
    v-model="text"
    size="small"
    autocomplete="off"
    :aria-label="label"
    :title="`Write ${order}, or 2027-02-01`"
    :aria-invalid="!!why"
    :aria-describedby="why ? `${id}-why` : undefined"
    @change="commit"
    @keydown.esc="((text = writeDate(value)), (why = ''))"
  />
  <span v-if="why" :id="`${id}-why`" class="short why" role="alert">{{ why }}</span>
</template>

<style scoped>
.el-input {
  min-width: 120px;
  max-width: var(--word);
}

.why {
  font-size: var(--second);
}
</style>
