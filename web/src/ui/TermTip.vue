<script setup lang="ts">
import { ElTooltip } from 'element-plus'

import words from './words.json'

/** One of our own words where it first appears, with what it means under the pointer and for the keyboard. */
defineProps<{ word: keyof typeof words }>()
</script>

<template>
  <ElTooltip
    :content="words[word]"
    :trigger="['hover', 'focus']"
    :show-after="250"
    popper-class="term-tip"
    placement="bottom-start"
  >
    <span class="term" tabindex="0" :data-term="word"
      ><slot>{{ word }}</slot></span
    >
  </ElTooltip>
</template>

<style scoped>
.term {
  text-decoration: underline dotted;
  text-underline-offset: 3px;
  cursor: help;
}
</style>
