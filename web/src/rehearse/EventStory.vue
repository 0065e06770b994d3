<script setup lang="ts">
import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import MendButton from '../findings/MendButton.vue'
import { useEffects } from '../findings/useEffects'
import { useSite } from '../site/useSite'
import { computed } from 'vue'

import NothingPointed from './NothingPointed.vue'
import type { Rehearsing } from './useRehearsal'

/** What became of the event that is pointed at, gate by gate, and the findings about its channel. */
const { r } = defineProps<{ r: Rehearsing }>()
const site = useSite()
const { data: story, failure } = useAnswer(
  () => [r.pointed.value?.event, r.data.value],
  () =>
    r.pointed.value && r.data.value
      ? api.GET('/api/plans/{id}/rehearse/event', {
          params: { ...site.here, query: { ...r.query.value, event: r.pointed.value.event } },
        })
      : undefined,
  { fresh: true },
)
/** What mends a loss at the gates at which this event was lost. */
const findings = computed(() => {
  const at = new Set<string>(story.value?.lostAt ?? [])
  const here = r.pointed.value?.channel
  return site.findings
    .filter((f) => !f.accepted && f.fix && f.gate && at.has(f.gate) && (f.channels ?? [f.channel]).includes(here))
    .slice(0, 3)
})
const tried = useEffects(() => findings.value)
</script>

<template>
  <section data-test="story">
    <NothingPointed v-if="!r.pointed.value" :r="r" />
    <p v-else-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else-if="!story" class="soft" role="status">Looking up what became of it…</p>
    <template v-else>
      <h2>{{ story.sentence }}</h2>
      <p v-if="story.answer" class="answer" :class="{ no: story.fate === 'missed' }" data-test="answer">
        {{ story.answer }}
      </p>
      <ol>
        <li v-for="(s, i) in story.steps" :key="i" :class="{ no: !s.passed }" :data-gate="s.gate">
          <span aria-hidden="true">{{ s.passed ? '●' : '○' }}</span> {{ s.words }}
        </li>
      </ol>
      <template v-if="findings.length">
        <h3>What would mend it</h3>
        <p v-for="f in findings" :key="f.id" class="finding">
          {{ f.sentence }}
          <MendButton :finding="f" :tried="tried" />
        </p>
      </template>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 6px;
}

h3 {
  margin: 12px 0 2px;
  font-size: var(--second);
}

ol {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  padding: 3px 0;
}

.answer {
  margin: 0 0 6px;
  font-weight: 600;
}

.no {
  color: var(--short);
}

.finding {
  margin: 4px 0;
}
</style>
