<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Compared, Sentence } from '../api/types'
import { count } from '../ui/figures'

/** What differs between two variants, in sentences; each can be carried over. */
const { first, second } = defineProps<{ first: Compared; second: Compared }>()
defineEmits<{ carry: [sentence: Sentence, from: Compared, to: Compared] }>()
const words = ref('')
const shown = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)
  return (second.differs ?? []).filter((s) =>
    wanted.every((w) => `${s.who} ${s.kind} ${s.words}`.toLowerCase().includes(w)),
  )
})
const most = ref(100)
</script>

<template>
  <section data-test="differences">
    <h2>{{ second.name }} beside {{ first.name }}: {{ count(second.differs?.length ?? 0, 'difference') }}</h2>
    <input
      v-if="(second.differs?.length ?? 0) > 12"
      v-model="words"
      type="search"
      placeholder="Find in the differences"
      aria-label="Find in the differences"
    />
    <p v-if="!second.differs?.length" class="soft">The two are planned alike.</p>
    <ul>
      <li v-for="(s, i) in shown.slice(0, most)" :key="i" :data-difference="i">
        <span
          ><b>{{ s.who }}</b
          >: {{ s.words }}</span
        >
        <span class="acts">
          <button
            type="button"
            class="plain-button link"
            :title="`Set it so in ${first.name} too`"
            data-test="also"
            @click="$emit('carry', s, second, first)"
          >
            Also in {{ first.name }}
          </button>
          <button
            type="button"
            class="plain-button link"
            :title="`Set it in ${second.name} as it is in ${first.name}`"
            data-test="not"
            @click="$emit('carry', s, first, second)"
          >
            Not in {{ second.name }}
          </button>
        </span>
      </li>
    </ul>
    <button v-if="shown.length > most" type="button" class="plain-button link" @click="most += 400">
      {{ count(shown.length - most, 'more difference') }}
    </button>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 6px;
}

ul {
  list-style: none;
  margin: 6px 0;
  padding: 0;
}

li {
  padding: 5px 0;
  border-top: 1px solid var(--rule);
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  font-size: var(--second);
}

@media print {
  .acts,
  input {
    display: none;
  }
}
</style>
