<script setup lang="ts">
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import TermTip from '../ui/TermTip.vue'
import AtDevices from './AtDevices.vue'
import FindingItem from './FindingItem.vue'
import FindingList from './FindingList.vue'
import { useEffects } from './useEffects'
import { severities, useFindings, type Severity } from './useFindings'

const site = useSite()
const { count, reopen } = useFindings()
const only = ref<Severity>()
const shown = computed(() => site.findings.filter((f) => !f.accepted && (!only.value || f.severity === only.value)))
const accepted = computed(() => site.findings.filter((f) => f.accepted))

const tried = useEffects(() => shown.value)

/** Those that are shown, by how bad they are. */
const groups = computed(() =>
  severities
    .map((severity) => ({
      severity,
      name: titles[severity],
      list: shown.value.filter((f) => f.severity === severity),
    }))
    .filter((g) => g.list.length),
)

/** Acceptances of what is not found any more, or says something else now. */
const gone = computed(() => (site.plan?.accepted ?? []).filter((a) => !site.findings.some((f) => f.key === a.finding)))
const said = (key: string) => key.slice(key.indexOf(': ') + 2).replace(/ \([0-9a-f]+\)$/, '')
const names = { error: ['error', 'errors'], warning: ['warning', 'warnings'], hint: ['hint', 'hints'] } as const
const titles = { error: 'Errors', warning: 'Warnings', hint: 'Hints' }
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
    <AtDevices />
    <template v-if="shown.length">
      <section v-for="g in groups" :key="g.severity" class="group" :aria-label="g.name">
        <h2 :class="{ short: g.severity === 'error' }">
          {{ g.name }}
          <span v-for="of in 2" :key="of" class="soft columns" aria-hidden="true"
            ><i>days</i><i>missed a day</i><i>GB a day</i></span
          >
        </h2>
        <FindingList :findings="g.list" :tried="tried" linked />
      </section>
    </template>
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

.group {
  max-width: 1040px;
  margin-bottom: 20px;
}

.group h2 {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  font-size: var(--heading);
  border-bottom: 1px solid var(--rule);
  padding-bottom: 2px;
}

.columns {
  display: grid;
  grid-template-columns: repeat(3, 76px);
  gap: 0 8px;
  font-size: var(--axis);
  font-weight: 400;
  text-align: right;
}

.columns i {
  font-style: normal;
}

/* There is one column of findings, or two. */
.columns + .columns {
  display: none;
}

@media (max-width: 500px) {
  .columns {
    grid-template-columns: repeat(3, 54px);
    gap: 0 4px;
  }
}

@media (min-width: 1900px) {
  .group {
    max-width: none;
  }

  .group :deep(> ul) {
    columns: 2;
    column-gap: 40px;
  }

  .group h2 {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    column-gap: 40px;
  }

  .columns {
    grid-area: 1 / 1;
    justify-self: end;
  }

  .columns + .columns {
    display: grid;
    grid-area: 1 / 2;
  }
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
}
</style>
