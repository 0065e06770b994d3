<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'

import type { Finding } from '../api/types'
import { useSite } from '../site/useSite'
import { useHand } from '../week/useHand'
import { channelsOf, useFindings } from './useFindings'

const props = defineProps<{ finding: Finding; linked?: boolean }>()
const { mend } = useFindings()
const hand = useHand()
const site = useSite()
const router = useRouter()

const names = computed(() => channelsOf(props.finding).map((id) => site.channels.get(id)?.name ?? id).join(', '))

/** Goes where the finding is decided. */
function show() {
  if (channelsOf(props.finding).length) hand.show(channelsOf(props.finding))
  else hand.panel = 'disk'
  void router.push({ name: 'week' })
}
</script>

<template>
  <li class="finding" :class="finding.severity" :data-rule="finding.rule">
    <b class="severity">{{ finding.severity }}</b>
    <div>
      <p class="sentence">{{ finding.sentence }}</p>
      <p class="soft">{{ finding.reason }}</p>
      <p v-if="finding.channels" class="soft">{{ names }}</p>
      <p class="acts">
        <button v-if="finding.fix" type="button" class="fix" @click="mend(finding)">{{ finding.fix.label }}</button>
        <button v-if="linked && (finding.channel || finding.pool)" type="button" class="plain-button show" @click="show">Show where</button>
      </p>
    </div>
  </li>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}

p {
  margin: 0;
}

.severity {
  font-weight: 400;
  color: var(--soft);
}

.error .severity {
  color: var(--short);
  font-weight: 700;
}

.warning .severity {
  color: var(--ink);
  font-weight: 600;
}

.acts {
  display: flex;
  gap: 14px;
  padding-top: 3px;
}

.acts:empty {
  display: none;
}

.fix {
  background: none;
  border: 1px solid var(--base);
  border-radius: 5px;
  padding: 1px 9px;
  cursor: pointer;
  color: var(--base);
}

.fix:hover {
  background: var(--selected);
}

.show {
  text-decoration: underline;
}
</style>
