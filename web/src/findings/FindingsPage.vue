<script setup lang="ts">
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import TermTip from '../ui/TermTip.vue'
import FindingItem from './FindingItem.vue'
import FindingList from './FindingList.vue'
import { severities, useFindings, type Severity } from './useFindings'

const site = useSite()
const { count, reopen } = useFindings()
const only = ref<Severity>()
const shown = computed(() => site.findings.filter((f) => !f.accepted && (!only.value || f.severity === only.value)))
const accepted = computed(() => site.findings.filter((f) => f.accepted))

/** Acceptances of what is not found any more, or says something else now. */
const gone = computed(() => (site.plan?.accepted ?? []).filter((a) => !site.findings.some((f) => f.key === a.finding)))
const said = (key: string) => key.slice(key.indexOf(': ') + 2).replace(/ \([0-9a-f]+\)$/, '')
const names = { error: ['error', 'errors'], warning: ['warning', 'warnings'], hint: ['hint', 'hints'] } as const
const meaning = {
  error: 'footage missing, or kept too long',
  warning: 'it may go wrong',
  hint: 'worth a look',
}
</script>

<template>
  <section class="findings" aria-label="Findings">
    <h1><TermTip word="finding">Findings</TermTip></h1>
    <div class="filter" role="group" aria-label="Show only">
      <button
        v-for="s in severities"
        :key="s"
        type="button"
        :aria-pressed="only === s"
        :title="meaning[s]"
        @click="only = only === s ? undefined : s"
      >
        <b>{{ count[s] }}</b> {{ names[s][count[s] === 1 ? 0 : 1] }} <span class="soft">· {{ meaning[s] }}</span>
      </button>
    </div>
    <FindingList v-if="shown.length" :findings="shown" linked />
    <p v-else>
      {{
        site.findings.length > accepted.length
          ? 'None of this kind.'
          : accepted.length
            ? 'Nothing else was found.'
            : 'Nothing was found. The checks look at detection, causes, duties, retention and limits after every change.'
      }}
    </p>
    <details
      v-if="accepted.length || gone.length"
      class="accepted"
      :open="!shown.length || undefined"
      data-test="accepted-findings"
    >
      <summary>
        {{ accepted.length }} accepted<template v-if="gone.length">, {{ gone.length }} of earlier figures</template>
      </summary>
      <ul>
        <FindingItem v-for="f in accepted" :key="f.id" :finding="f" linked />
        <li v-for="a in gone" :key="a.finding" class="gone soft">
          {{ said(a.finding) }} — {{ a.reason }} <span>(not found like this any more)</span>
          <button type="button" class="plain-button link" @click="reopen(a.finding)">Remove</button>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.findings {
  height: 100%;
  overflow: auto;
  padding: 20px 28px;
}

h1 {
  font-size: 18px;
}

.filter {
  display: flex;
  gap: 8px;
  margin: 10px 0;
}

.filter button {
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 4px 10px;
  cursor: pointer;
}

.filter button[aria-pressed='true'] {
  border-color: var(--base);
  box-shadow: inset 0 0 0 1px var(--base);
}

.accepted {
  margin-top: 18px;
}

.accepted summary {
  cursor: pointer;
}

.gone {
  padding: 6px 0;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-width: 980px;
}
</style>
