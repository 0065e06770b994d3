<script setup lang="ts">
import { ZxcvbnFactory } from '@zxcvbn-ts/core'
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common'
import { computed } from 'vue'

/** How hard a password is to guess, as it is typed. It never leaves the page for this. */
const props = defineProps<{ password: string }>()
const guesser = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs })
const words = ['guessed at once', 'guessed soon', 'guessed with some work', 'hard to guess', 'very hard to guess']
const score = computed(() => guesser.check(props.password.slice(0, 100)).score)
</script>

<template>
  <div class="row">
    <meter min="0" max="4" :value="score" :aria-label="words[score]" />
    <span class="soft" data-test="strength">{{ words[score] }}</span>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: var(--second);
}

meter {
  width: 96px;
  height: 6px;
  appearance: none;
  border-radius: 4px;
  background: var(--rule);
}

meter::-webkit-meter-bar {
  height: 6px;
  border: 0;
  border-radius: 4px;
  background: var(--rule);
}

meter::-webkit-meter-optimum-value {
  background: var(--ink);
}

meter::-moz-meter-bar {
  background: var(--ink);
}
</style>
