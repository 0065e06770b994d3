<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Unknown } from '../api/types'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'
import TermTip from '../ui/TermTip.vue'

/** Which unknowns matter most for the days kept. */
const site = useSite()
const common = computed(() => Math.round(site.verdict?.likelyDays?.commonPercent ?? 0))

function said(u: Unknown) {
  switch (u.kind) {
    case 'bitrate':
      return `the bitrates of ${u.name}, from a clip`
    case 'night':
      return `what ${u.name} comes to in the dark, from a clip taken at night`
    case 'noticing':
      return `what ${u.name} notice, by drawing what they see and by a walk test`
    case 'groups':
      return `whether events of “${u.name}” come in batches, by watching for an hour`
    default:
      return `how often and how long “${u.name}” happens, from an event log`
  }
}

const { data: found, failure } = useAnswer(
  () => [site.stamp],
  () => api.GET('/api/plans/{id}/knowing', { params: site.here }),
  { keep: true },
)
</script>

<template>
  <section class="sheet" aria-label="Worth measuring" data-test="knowing">
    <h2><TermTip word="likely range">Worth measuring</TermTip></h2>
    <p v-if="common" class="soft" data-test="common">
      {{ common }} % of the doubt is common to the site: everything a little busier, or every stream a little larger,
      than was thought. No single measurement removes that.
    </p>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else-if="!found" class="soft">Trying what each measurement would tell…</p>
    <p v-else-if="!found.length" class="soft">
      No single measurement would narrow the likely range of days kept by a twentieth of a day.
    </p>
    <template v-else>
      <p class="soft">By how many days the likely range would be narrower:</p>
      <ol>
        <li v-for="u in found.slice(0, 12)" :key="`${u.kind} ${u.id}`">
          <b>{{ three(u.narrowerDays) }} d</b>
          <span>{{ said(u) }}</span>
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
ol {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: 10px;
  padding: 2px 0;
}

li b {
  text-align: right;
}
</style>
