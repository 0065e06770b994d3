<script setup lang="ts">
import { computed } from 'vue'

import { choices, nameOf } from '../../api/format'
import type { Edit, Offsite } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { about } from '../../ui/duration'
import DurationField from '../../ui/DurationField.vue'
import { amount, kbps, three } from '../../ui/figures'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import SwitchField from '../../ui/SwitchField.vue'
import CopyTable from './CopyTable.vue'
import FindingsOf from '../parts/FindingsOf.vue'
import HourRibbon from '../parts/HourRibbon.vue'
import { useAlerts } from '../parts/useAlerts'
import { useEdits } from '../parts/useEdits'

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
  return list.toSorted((a, b) => (b.ninetySafeSeconds ?? Infinity) - (a.ninetySafeSeconds ?? Infinity))[0]
})
/** Whether anybody hears of it when the line is cut. */
const told = computed(
  () =>
    offsite.value?.watched ||
    (site.plan?.effects ?? []).some((e) => e.when.uplinkLost && (e.message ?? e.output ?? e.monitor)?.length),
)
const instead = (what: Offsite['copy']): Edit[] => [{ setOffsite: { offsite: { ...offsite.value!, copy: what } } }]
</script>

<template>
  <div class="part">
    <h1 class="visually-hidden">Copy off site of {{ site.plan?.site.name }}</h1>
    <p v-if="failure || problem" class="short" role="alert">{{ failure || problem }}</p>
    <template v-if="!offsite">
      <p>Nothing is copied off site. With the recorder a thief has the footage too.</p>
      <button
        type="button"
        class="act"
        data-test="start-offsite"
        @click="change({ setOffsite: { offsite: { uplinkKbps: 5000, takenWithinSeconds: 300 } } })"
      >
        Copy over an uplink of 5 Mbit/s
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
            label="Time a thief needs"
            :value="offsite.takenWithinSeconds"
            member="offsite.takenWithinSeconds"
            none="not said"
            @change="(takenWithinSeconds) => set({ takenWithinSeconds })"
            @clear="set({ takenWithinSeconds: undefined })"
          />
          <SwitchField
            label="Line watched"
            :value="offsite.watched ?? false"
            @change="(watched) => set({ watched: watched || undefined })"
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
            :say="(i) => `${kbps(copy?.kbps?.[i] ?? 0)} copied of ${kbps(offsite!.uplinkKbps)}`"
          />
          <HourRibbon
            v-if="backlog.some((v) => v > 1e-6)"
            label="What waits for the uplink, nine of ten weeks"
            :ink="backlog"
            :say="(i) => `${amount(backlog[i] ?? 0)} waits`"
          />
          <p class="figures">
            <span
              ><b>{{ amount(figures.gigabytesPerDay) }}</b> a day, <b>{{ three(figures.uplinkPercent) }} %</b> of what
              the uplink carries</span
            >
            <span v-if="figures.worstWaitSeconds == null" class="short"><b>never catches up</b></span>
            <span v-else-if="figures.worstWaitSeconds > 0.5"
              >99 of 100 copies begin within <b>{{ about(figures.worstWaitSeconds) }}</b></span
            >
            <span v-else>no copy waits for long</span>
          </p>
          <p v-if="worst" data-test="race">
            {{ site.channels.get(worst.channel)?.name }} is safe last:
            <b v-if="worst.ninetySafeSeconds == null" class="short">the uplink never catches up</b>
            <template v-else>
              nine of ten are safe within <b>{{ about(worst.ninetySafeSeconds) }}</b> of the event, 99 of 100 within
              {{ about(worst.worstSafeSeconds ?? 0) }}</template
            >.
            <template v-if="offsite.takenWithinSeconds && worst.latePercent != null">
              A thief needs {{ about(offsite.takenWithinSeconds) }}:
              <b :class="{ short: worst.late }">{{ three(worst.latePercent) }} % come later.</b>
            </template>
          </p>
          <p data-test="cut" class="soft">
            If the line is cut first, only what was safe by then is off site.
            {{ told ? 'Somebody is told.' : 'Nobody would know.' }}
          </p>
        </div>
        <p v-else-if="!tied" class="soft">
          No cause is tied to a copy yet: pick causes and “Copies off site” under
          <RouterLink :to="{ name: 'triggers', params: { part: 'causes' } }">What it causes</RouterLink>.
        </p>
      </section>
      <CopyTable v-if="copy" :copy="copy" @instead="(what) => change(...instead(what))" />
      <p v-if="copy" class="soft">
        Copied: {{ nameOf(choices.copies.value, offsite.copy ?? 'recorded') }} around events tied to a copy. Seconds
        count from the end of an event; those kept after it are among them.
      </p>
    </template>
  </div>
</template>

<style scoped src="../parts/part.css"></style>
