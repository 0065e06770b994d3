<script setup lang="ts">
import { computed } from 'vue'

import type { Duty, Recorder } from '../../api/types'
import DutySwatch from '../../duties/DutySwatch.vue'
import { useSite } from '../../site/useSite'
import TextField from '../../ui/TextField.vue'

/** What the fitter calls duties at a recorder; steps say it in place of ours. */
const props = defineProps<{ recorder: Recorder; duties: Duty[] }>()
const site = useSite()
const words = computed<Record<string, string>>(() => props.recorder.words ?? {})
/** Duties that the plan has: those that only stand for what the recorder takes have no word of their own. */
const own = computed(() => props.duties.filter((d) => site.duties.has(d.id)))

function call(duty: string, word: string) {
  const next = { ...words.value }
  if (word) next[duty] = word
  else delete next[duty]
  site.change([
    { setRecorder: { recorder: { ...props.recorder, words: Object.keys(next).length ? next : undefined } } },
  ])
}
</script>

<template>
  <section class="called" aria-label="Words on this recorder">
    <h3>Words on this recorder</h3>
    <p class="soft">How its menus call what we plan. Steps say it that way; papers for the customer do not.</p>
    <div v-for="d in own" :key="d.id" class="word">
      <DutySwatch :duty="d" />
      <TextField
        :label="d.name"
        :value="words[d.id]"
        :maxlength="100"
        :placeholder="d.name"
        :data-word="d.id"
        @change="(w) => call(d.id, w)"
      />
    </div>
  </section>
</template>

<style scoped>
.called {
  padding: 14px 8px;
  max-width: 460px;
}

p {
  margin: 2px 0 6px;
  font-size: var(--second);
}

.word {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr);
  gap: 6px;
  align-items: center;
}
</style>
