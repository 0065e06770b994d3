<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Edit, Message, Monitor, Output } from '../../api/types'
import { useSite } from '../../site/useSite'
import LossesList from '../causes/LossesList.vue'
import MessageCard from './MessageCard.vue'
import MonitorCard from './MonitorCard.vue'
import NobodyTold from './NobodyTold.vue'
import OutputCard from './OutputCard.vue'
import { useAlerts } from '../parts/useAlerts'
import { useEdits } from '../parts/useEdits'
import { useNew } from '../causes/useNew'
import TermTip from '../../ui/TermTip.vue'

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
watch([() => site.stamp, edits.problem], () => (trying.value = undefined))
</script>

<template>
  <div class="part">
    <h1 class="visually-hidden">Messages and outputs of {{ site.plan?.site.name }}</h1>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-if="edits.problem.value" class="short" role="alert">{{ edits.problem.value }}</p>
    <section>
      <h2>
        <TermTip word="held back">Messages</TermTip>
        <button v-if="messages.length" type="button" class="act quiet" data-test="new-message" @click="add('message')">
          New message
        </button>
      </h2>
      <NobodyTold v-if="!messages.length" @make="add('message')" />
      <MessageCard
        v-for="(m, i) in messages"
        :key="m.id"
        :index="i"
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
      <OutputCard v-for="(o, k) in outputs" :key="o.id" :index="k" :output="o" :alerts="alerts" />
    </section>
    <section>
      <h2>
        Monitors
        <button type="button" class="act quiet" data-test="new-monitor" @click="add('monitor')">New monitor</button>
      </h2>
      <MonitorCard v-for="(m, k) in monitors" :key="m.id" :index="k" :monitor="m" :alerts="alerts" />
    </section>
    <LossesList />
  </div>
</template>

<style scoped src="../parts/part.css"></style>
