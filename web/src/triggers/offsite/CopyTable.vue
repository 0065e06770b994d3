<script setup lang="ts">
import { choices, nameOf } from '../../api/format'
import type { CopyHours, Offsite } from '../../api/types'
import { useSite } from '../../site/useSite'
import { about } from '../../ui/duration'
import { amount, kbps, three } from '../../ui/figures'
import { whenName } from '../causes/whenName'
import TermTip from '../../ui/TermTip.vue'

/** For each channel when an event's footage is safe elsewhere; and what copying less would do. */
defineProps<{ copy: CopyHours }>()
const emit = defineEmits<{ instead: [what: Offsite['copy']] }>()
const site = useSite()
const because = (channel: string) =>
  (site.plan?.effects ?? [])
    .filter((e) => e.offsite?.includes(channel))
    .map((e) => whenName(site.plan, e.when))
    .join(', ')
const safe = (seconds: number | null) => (seconds == null ? 'never' : about(seconds))
</script>

<template>
  <section>
    <h2><TermTip word="safe">Until it is safe elsewhere</TermTip></h2>
    <table data-test="safe">
      <thead>
        <tr>
          <th scope="col">Channel</th>
          <th scope="col" class="because">copied when</th>
          <th scope="col">of one event</th>
          <th scope="col">copied, mean</th>
          <th scope="col">uplink idle</th>
          <th scope="col">mean</th>
          <th scope="col">9 of 10</th>
          <th scope="col">99 of 100</th>
          <th scope="col">later than a thief</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="c in copy.channels" :key="c.channel" :data-safe="c.channel">
          <th scope="row">{{ site.channels.get(c.channel)?.name }}</th>
          <td class="because">{{ because(c.channel) }}</td>
          <td>{{ three(c.eventMB) }} MB</td>
          <td>{{ kbps(c.kbps) }}</td>
          <td>{{ about(c.safeSeconds) }}</td>
          <td>{{ safe(c.meanSafeSeconds) }}</td>
          <td :class="{ short: c.late }" data-test="ninety">{{ safe(c.ninetySafeSeconds) }}</td>
          <td :class="{ short: c.late || c.worstSafeSeconds == null }">{{ safe(c.worstSafeSeconds) }}</td>
          <td>{{ c.latePercent == null ? '' : `${three(c.latePercent)} %` }}</td>
        </tr>
      </tbody>
    </table>
    <h2>Copying less</h2>
    <table data-test="instead">
      <tbody>
        <tr v-for="i in copy.instead" :key="i.copy" :data-instead="i.copy">
          <th scope="row">{{ nameOf(choices.copies.value, i.copy) }}</th>
          <td>{{ amount(i.gigabytesPerDay) }} a day</td>
          <td>{{ three(i.uplinkPercent) }} % of the uplink</td>
          <td>nine of ten safe within {{ safe(i.ninetySafeSeconds) }}</td>
          <td class="soft">{{ i.without ? `${i.without} of the channels have none` : '' }}</td>
          <td>
            <span v-if="i.chosen" class="soft">chosen</span>
            <button v-else type="button" class="plain-button link" @click="emit('instead', i.copy)">Copy this</button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
table {
  border-collapse: collapse;
}

td,
thead th {
  padding: 2px 0 2px 26px;
  text-align: right;
}

th {
  text-align: left;
  font-weight: 400;
}

thead th {
  color: var(--soft);
  font-size: var(--second);
}

thead th:first-child {
  text-align: left;
  padding-left: 0;
}

tbody tr {
  border-top: 1px solid var(--rule);
}

td.because,
thead .because {
  text-align: left;
}

section {
  overflow-x: auto;
}
</style>
