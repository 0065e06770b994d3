<script setup lang="ts">
import { computed } from 'vue'

import { choices, nameOf } from '../api/format'
import type { Edit, Offsite } from '../api/types'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import { about } from '../ui/duration'
import DurationField from '../ui/DurationField.vue'
import { amount, kbps, three } from '../ui/figures'
import HoursField from '../ui/HoursField.vue'
import NumberField from '../ui/NumberField.vue'
import CopyTable from './CopyTable.vue'
import FindingsOf from './FindingsOf.vue'
import HourRibbon from './HourRibbon.vue'
import { useAlerts } from './useAlerts'
import { useEdits } from './useEdits'

/** The copy off site: what it takes of the uplink, and when an event's footage is safe elsewhere. */
const site = useSite()
const { problem, change } = useEdits()
const { data: alerts, failure } = useAlerts()
const offsite = computed(() => site.plan?.offsite)
const set = (part: Partial<Offsite>) => change({ setOffsite: { offsite: { ...offsite.value!, ...part } } })
const copy = computed(() => alerts.value?.copy)
const figures = computed(() => alerts.value?.offsite)
const backlog = computed(() => copy.value?.backlogGB ?? [])
const tied = computed(() => (site.plan?.effects ?? []).some((e) => e.offsite?.length))
const worst = computed(() => {
  const list = copy.value?.channels ?? []
  return list.toSorted((a, b) => (b.worstSafeSeconds ?? Infinity) - (a.worstSafeSeconds ?? Infinity))[0]
})
const instead = (what: Offsite['copy']): Edit[] => [{ setOffsite: { offsite: { ...offsite.value!, copy: what } } }]
</script>

<template>
  <div class="part">
    <h1 class="visually-hidden">Copy off site of {{ site.plan?.site.name }}</h1>
    <p v-if="failure || problem" class="short" role="alert">{{ failure || problem }}</p>
    <template v-if="!offsite">
      <p>Nothing is copied off site. Whoever takes the recorder away takes the footage with it.</p>
      <button
        type="button"
        class="act"
        data-test="start-offsite"
        @click="change({ setOffsite: { offsite: { uplinkKbps: 5000, takenWithinSeconds: 300 } } })"
      >
        Copy over an uplink of 5 Mbps
      </button>
    </template>
    <template v-else>
      <FindingsOf at="offsite" />
      <section class="card">
        <div data-test="uplink">
          <NumberField
            label="Uplink"
            unit="kbit/s"
            :value="offsite.uplinkKbps"
            member="offsite.uplinkKbps"
            @change="(uplinkKbps) => set({ uplinkKbps })"
          />
          <HoursField
            label="Copies"
            empty="always"
            :value="offsite.hours?.blocks"
            @change="(blocks) => set({ hours: blocks.length ? { blocks } : undefined })"
          />
          <ChoiceField
            label="Of an event"
            :value="offsite.copy ?? 'recorded'"
            :choices="choices.copies.value"
            @change="(what) => change(...instead(what))"
          />
          <DurationField
            label="To take the recorder"
            :value="offsite.takenWithinSeconds"
            member="offsite.takenWithinSeconds"
            none="not said"
            @change="(takenWithinSeconds) => set({ takenWithinSeconds })"
            @clear="set({ takenWithinSeconds: undefined })"
          />
          <button type="button" class="plain-button link short" @click="change({ setOffsite: {} })">
            No copy off site
          </button>
        </div>
        <div v-if="copy && figures">
          <HourRibbon
            label="What is copied, against the uplink"
            :ink="copy.kbps ?? []"
            :line="offsite.uplinkKbps < 8 * Math.max(...(copy.kbps ?? [0])) ? offsite.uplinkKbps : undefined"
            tone="base"
            :say="(i) => `${kbps(copy?.kbps?.[i] ?? 0)} copied of ${kbps(offsite!.uplinkKbps)}`"
          />
          <HourRibbon
            v-if="backlog.some((v) => v > 1e-6)"
            label="What waits for the uplink"
            :ink="backlog"
            tone="alarm"
            :say="(i) => `${amount(backlog[i] ?? 0)} waits`"
          />
          <p class="figures">
            <span
              ><b>{{ amount(figures.gigabytesPerDay) }}</b> a day, <b>{{ three(figures.uplinkPercent) }} %</b> of what
              the uplink carries</span
            >
            <span v-if="figures.worstWaitSeconds == null" class="short"><b>never catches up</b></span>
            <span v-else-if="figures.worstWaitSeconds > 0.5"
              >a copy waits <b>{{ about(figures.worstWaitSeconds) }}</b> at worst before it begins</span
            >
            <span v-else>no copy waits for long</span>
          </p>
          <p v-if="worst && offsite.takenWithinSeconds" data-test="race">
            Somebody needs <b>{{ about(offsite.takenWithinSeconds) }}</b> to take the recorder;
            {{ site.channels.get(worst.channel)?.name }} is safe last,
            <b :class="{ short: worst.late }">{{
              worst.worstSafeSeconds == null ? 'never' : `${about(worst.worstSafeSeconds)} after an event`
            }}</b>.
          </p>
        </div>
        <p v-else-if="!tied" class="soft">
          No cause is tied to a copy yet: pick causes and “Copies off site” under
          <RouterLink :to="{ name: 'triggers', params: { part: 'causes' } }">What it causes</RouterLink>.
        </p>
      </section>
      <CopyTable v-if="copy" :copy="copy" @instead="(what) => change(...instead(what))" />
      <p v-if="copy" class="soft">
        Copied is {{ nameOf(choices.copies.value, offsite.copy ?? 'recorded') }} around what is tied to a copy. Seconds
        count from the end of an event; those kept after it are among them.
      </p>
    </template>
  </div>
</template>

<style scoped src="./part.css"></style>
