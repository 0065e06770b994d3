<script setup lang="ts">
import type { ReadLog } from '../../api/types'
import RateCurve from '../../forms/RateCurve.vue'
import { useSite } from '../../site/useSite'
import { count, three } from '../../ui/figures'

/** What a log says: its first events as they were understood, their rate, and what was left out. */
defineProps<{ found: ReadLog }>()
const site = useSite()
const date = new Intl.DateTimeFormat('en-GB', {
  dateStyle: 'medium',
  timeStyle: 'medium',
  timeZone: site.plan!.site.timeZone,
})
</script>

<template>
  <table class="first" data-test="log-sample">
    <caption class="soft">
      Times are written
      {{
        found.layout
      }}. The first events as they were understood:
    </caption>
    <tbody>
      <tr v-for="(s, i) in found.sample.slice(0, 5)" :key="i">
        <td>{{ s.channel }}</td>
        <td>{{ date.format(new Date(s.start)) }}</td>
        <td>{{ s.seconds >= 0 ? `${three(s.seconds)} s` : 'no end' }}</td>
      </tr>
    </tbody>
  </table>
  <p data-test="log-says">
    <b>{{ count(found.events, 'event') }}</b> over {{ three(found.weeks) }} weeks:
    <b>{{ three(found.perDay) }} a day</b> (±{{ three(found.ratePercent) }} %), lasting
    <b>{{ three(found.activity.meanSeconds) }} s</b
    ><template v-if="found.meanPercent"> (±{{ three(found.meanPercent) }} %)</template>. Hours assumed to be alike:
    {{ found.pattern }}.
  </p>
  <RateCurve :activity="found.activity" meant="this day" readonly :height="130" />
  <p v-for="n in found.notes" :key="n" class="soft">{{ n }}</p>
  <details v-if="found.leftOut">
    <summary class="short">{{ count(found.leftOut, 'line') }} left out</summary>
    <p v-for="b in found.bad" :key="b.line" class="soft">
      Line {{ b.line }}, {{ b.column }}: “{{ b.text }}” — {{ b.reason }}
    </p>
  </details>
</template>

<style scoped>
p {
  margin: 6px 0;
}

.first {
  border-collapse: collapse;
}

.first caption {
  text-align: left;
  white-space: nowrap;
}

.first td {
  padding: 1px 14px 1px 0;
}
</style>
