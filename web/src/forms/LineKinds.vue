<script setup lang="ts">
import type { LineAs, ReadLog } from '../api/types'
import ChoiceField from '../ui/ChoiceField.vue'
import { count } from '../ui/figures'

/** What the kinds of lines of a log mean: taken from their words, and confirmed where that is not certain. */
const props = defineProps<{ kinds: ReadLog['kinds']; asks: boolean }>()
const emit = defineEmits<{ change: [kinds: Record<string, LineAs>] }>()
const meanings = [
  ['start', 'an event starts'],
  ['stop', 'it stops'],
  ['event', 'an event by itself'],
  ['other', 'no event'],
] as const
const asTold = () => Object.fromEntries(props.kinds.map((k) => [k.text, k.as]))
</script>

<template>
  <fieldset v-if="kinds.length">
    <legend :class="{ short: asks }">{{ asks ? 'What do these lines mean?' : 'Lines mean' }}</legend>
    <ChoiceField
      v-for="k in kinds.slice(0, 12)"
      :key="k.text"
      :label="`“${k.text}”, ${count(k.lines, 'line')}`"
      :value="k.as"
      :choices="meanings"
      @change="(as) => emit('change', { ...asTold(), [k.text]: as })"
    />
    <button v-if="asks" type="button" class="act quiet" data-test="kinds-right" @click="emit('change', asTold())">
      That is right
    </button>
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 8px 0;
  padding: 4px 10px 8px;
  border: 1px solid var(--rule);
  border-radius: 6px;
}
</style>
