<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import FindingItem from '../findings/FindingItem.vue'
import type { Edit, Message, Monitor, Output } from '../api/types'
import { useSite } from '../site/useSite'
import { three } from '../ui/figures'
import HourRibbon from './HourRibbon.vue'
import LossesList from './LossesList.vue'
import MessageCard from './MessageCard.vue'
import MonitorForm from './MonitorForm.vue'
import OutputForm from './OutputForm.vue'
import { useAlerts } from './useAlerts'
import { useEdits } from './useEdits'
import { useNew } from './useNew'

/** Who is told what and how often, what goes on for how long, and what the monitor shows. */
const site = useSite()
const edits = useEdits()
const add = useNew(edits)
const messages = computed<Message[]>(() => site.plan?.messages ?? [])
const outputs = computed<Output[]>(() => site.plan?.outputs ?? [])
const monitors = computed<Monitor[]>(() => site.plan?.monitors ?? [])

/** The interval that is being turned, before it is kept. */
const trying = ref<{ id: string; seconds: number }>()
const tried = computed<Edit[]>(() => {
  const message = messages.value.find((m) => m.id === trying.value?.id)
  return message ? [{ setMessage: { message: { ...message, atMostEverySeconds: trying.value!.seconds } } }] : []
})
const { data: alerts, failure } = useAlerts(() => tried.value)
function keep(message: Message, atMostEverySeconds: number) {
  if (atMostEverySeconds === message.atMostEverySeconds) trying.value = undefined
  else edits.change({ setMessage: { message: { ...message, atMostEverySeconds } } })
}
watch([() => site.version, edits.problem], () => (trying.value = undefined))

const outputHours = (id: string) => alerts.value?.hours.outputs?.find((o) => o.id === id)
const outputFigures = (id: string) => alerts.value?.outputs?.find((o) => o.id === id)
const monitorHours = (id: string) => alerts.value?.hours.monitors?.find((m) => m.id === id)
const monitorFigures = (id: string) => alerts.value?.monitors?.find((m) => m.id === id)
const percent = (list: number[] | null | undefined) => (list ?? []).map((v) => 100 * v)
const findings = computed(() =>
  site.findings.filter((f) => !f.accepted && /^(messages|outputs|monitors)\[/.test(f.path)),
)
</script>

<template>
  <div class="part">
    <h1 class="visually-hidden">Messages and outputs of {{ site.plan?.site.name }}</h1>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-if="edits.problem.value" class="short" role="alert">{{ edits.problem.value }}</p>
    <ul v-if="findings.length" class="findings">
      <FindingItem v-for="f in findings" :key="f.id" :finding="f" class="small" />
    </ul>
    <section>
      <h2>
        Messages
        <button type="button" class="act quiet" data-test="new-message" @click="add('message')">New message</button>
      </h2>
      <p v-if="!messages.length" class="soft">
        Nobody is told of anything yet. Make a message, then tie causes to it under
        <RouterLink :to="{ name: 'triggers', params: { part: 'causes' } }">What it causes</RouterLink>. Wakefield plans
        messages; it sends none.
      </p>
      <MessageCard
        v-for="m in messages"
        :key="m.id"
        :message="m"
        :alerts="alerts"
        :trying="trying?.id === m.id ? trying.seconds : undefined"
        @try="(seconds) => (trying = { id: m.id, seconds })"
        @keep="(seconds) => keep(m, seconds)"
      />
    </section>
    <section>
      <h2>
        Sounders, lights, relays
        <button type="button" class="act quiet" data-test="new-output" @click="add('output')">New output</button>
      </h2>
      <article v-for="o in outputs" :key="o.id" class="card" :data-card="o.id">
        <OutputForm :output="o" />
        <div>
          <HourRibbon
            v-if="outputHours(o.id)"
            :label="`${o.name}: how much of each hour it is on`"
            :ink="percent(outputHours(o.id)!.on)"
            tone="alarm"
            :say="
              (i) =>
                `on for ${three(100 * (outputHours(o.id)?.on?.[i] ?? 0))} % of it, ${three(outputHours(o.id)?.begins?.[i] ?? 0)} times`
            "
          />
          <p v-if="outputFigures(o.id)" class="figures">
            <span
              ><b>{{ three(outputFigures(o.id)!.perDay) }}</b> times a day</span
            >
            <span
              >on for <b>{{ three(outputFigures(o.id)!.onPercent) }} %</b> of the time</span
            >
            <span
              ><b>{{ three(outputFigures(o.id)!.nightPerDay) }}</b> times from 22:00 to 06:00,
              <b>{{ three(outputFigures(o.id)!.nightOnPercent) }} %</b> of it</span
            >
          </p>
        </div>
      </article>
    </section>
    <section>
      <h2>
        Monitors
        <button type="button" class="act quiet" data-test="new-monitor" @click="add('monitor')">New monitor</button>
      </h2>
      <article v-for="m in monitors" :key="m.id" class="card" :data-card="m.id">
        <MonitorForm :monitor="m" />
        <div>
          <HourRibbon
            v-if="monitorHours(m.id)"
            :label="`${m.name}: how much of each hour it shows something`"
            :ink="percent(monitorHours(m.id)!.on)"
            tone="base"
            :say="
              (i) =>
                `taken for ${three(100 * (monitorHours(m.id)?.on?.[i] ?? 0))} % of it, ${three(monitorHours(m.id)?.shown?.[i] ?? 0)} showings, ${three(monitorHours(m.id)?.cutShort?.[i] ?? 0)} cut short`
            "
          />
          <p v-if="monitorFigures(m.id)" class="figures">
            <span
              ><b>{{ three(monitorFigures(m.id)!.perDay) }}</b> showings a day</span
            >
            <span
              >taken for <b>{{ three(monitorFigures(m.id)!.onPercent) }} %</b> of the time,
              <b>{{ three(monitorFigures(m.id)!.busiestOnPercent) }} %</b> of the busiest hour</span
            >
            <span
              ><b>{{ three(monitorFigures(m.id)!.cutShortPercent) }} %</b> cut short by the next</span
            >
          </p>
        </div>
      </article>
    </section>
    <LossesList />
  </div>
</template>

<style scoped src="./part.css"></style>
