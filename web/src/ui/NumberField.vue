<script setup lang="ts">
import { ElInput } from 'element-plus'
import { computed, ref, useId, watch } from 'vue'

import { limitsOf } from '../api/format'
import { asRead } from '../habits/now'
import { readNumber } from './number'

/**
 * A number with its label and unit. It is handed on when it is committed, not while it is typed; one that is refused
 * stays, with the reason beside it. Where nothing may be said, an empty field is 0 and shows what that means. Limits
 * are those of the member of the plan that is named, unless others are given.
 *
 * A text field underneath: Element Plus's own number field clamps without a word, and knows no decimal comma.
 */
const props = defineProps<{
  label: string
  unit?: string
  value: number | undefined
  member?: string
  min?: number
  max?: number
  step?: number
  whole?: boolean
  none?: string
  optional?: boolean // it may be left empty, which is something else than 0
  disabled?: boolean
  mixed?: boolean
}>()
const emit = defineEmits<{ change: [value: number]; clear: [] }>()
const id = useId()

const limits = computed(() => {
  const core = props.member ? limitsOf(props.member) : {}
  return {
    min: props.min ?? (props.none ? 0 : (core.minimum ?? 0)),
    max: props.max ?? core.maximum,
    whole: props.whole || core.whole,
  }
})
const isEmpty = computed(() => props.mixed || props.value == null || (props.none && !props.value))
const shown = computed(() => (isEmpty.value ? '' : asRead(String(props.value))))
const text = ref(shown.value)
const why = ref('')
watch(shown, () => {
  text.value = shown.value
  why.value = ''
})

let tried = '' // what was handed on last; where it was refused, the same can be tried again

function again() {
  if (tried && text.value === tried) commit()
}

function commit() {
  why.value = ''
  if (text.value === shown.value) return
  if (!text.value.trim()) {
    if (props.optional) emit('clear')
    else if (props.none) emit('change', 0)
    else text.value = shown.value
    return
  }
  const read = readNumber(text.value, limits.value, props.unit)
  if ('why' in read) {
    why.value = read.why
    return
  }
  if (read.value === props.value && !props.mixed) text.value = shown.value
  else {
    tried = text.value
    emit('change', read.value)
  }
}

function nudge(by: number) {
  const read = readNumber(text.value || '0', { ...limits.value, whole: false }, props.unit)
  if ('why' in read) return
  const next = Math.max(limits.value.min, read.value + by * (props.step ?? 1))
  text.value = asRead(String(Math.round(Math.min(limits.value.max ?? Infinity, next) * 1e6) / 1e6))
}

function leave() {
  text.value = shown.value
  why.value = ''
}
</script>

<template>
  <div class="field" :class="{ refused: why }">
    <label :for="id">{{ label }}</label>
    <ElInput
      :id="id"
      v-model="text"
      size="small"
      inputmode="decimal"
      autocomplete="off"
      :disabled="disabled"
      :placeholder="mixed ? 'differ' : none"
      :aria-invalid="!!why"
      :aria-describedby="why ? `${id}-why` : undefined"
      @change="commit"
      @keydown.up.prevent="nudge(1)"
      @keydown.down.prevent="nudge(-1)"
      @keydown.esc="leave"
      @keydown.enter="again"
      @blur="commit"
    />
    <span class="soft">{{ unit }}</span>
    <span v-if="why" :id="`${id}-why`" class="why short" role="alert">
      {{ why }}; unchanged: {{ mixed ? 'as it was' : shown || none || 'empty' }}
    </span>
  </div>
</template>
<style scoped>
.field {
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--number) 36px;
  gap: 0 6px;
  align-items: center;
  min-height: var(--row);
}

.field :deep(.el-input__inner) {
  text-align: right;
}

.refused :deep(.el-input__wrapper) {
  box-shadow: 0 0 0 1px var(--short) inset;
}

.why {
  grid-column: 1 / -1;
  font-size: var(--second);
}
</style>
