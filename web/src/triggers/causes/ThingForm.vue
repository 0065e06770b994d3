<script setup lang="ts">
import { computed } from 'vue'

import type { CauseLine } from '../../api/types'
import { useSite } from '../../site/useSite'
import ButtonForm from './ButtonForm.vue'
import InputForm from './InputForm.vue'
import MessageForm from '../messages/MessageForm.vue'
import MonitorForm from '../messages/MonitorForm.vue'
import OutputForm from '../messages/OutputForm.vue'
import type { Target } from './useEnds'

/** What is picked by itself, where it can be changed here. */
const { cause, target } = defineProps<{ cause: CauseLine | undefined; target: Target | undefined }>()
const site = useSite()
const input = computed(() => site.plan?.alarmInputs?.find((a) => a.id === cause?.when.alarm))
const button = computed(() => site.plan?.callButtons?.find((b) => b.id === cause?.when.button))
const of = <T extends { id: string }>(does: Target['does'], list?: T[]) =>
  target?.does === does ? list?.find((x) => x.id === target.to) : undefined
const message = computed(() => of('message', site.plan?.messages))
const output = computed(() => of('output', site.plan?.outputs))
const monitor = computed(() => of('monitor', site.plan?.monitors))
</script>

<template>
  <InputForm v-if="input" :key="input.id" :input="input" />
  <ButtonForm v-else-if="button" :key="button.id" :button="button" />
  <MessageForm v-else-if="message" :key="message.id" :message="message" />
  <OutputForm v-else-if="output" :key="output.id" :output="output" />
  <MonitorForm v-else-if="monitor" :key="monitor.id" :monitor="monitor" />
  <p v-else-if="target?.does === 'preset' || target?.does === 'still'" class="soft">
    <RouterLink :to="{ name: 'triggers', params: { part: 'stills' } }">Presets and snapshots are made here</RouterLink>
  </p>
  <p v-else-if="target?.does === 'offsite'" class="soft">
    <RouterLink :to="{ name: 'triggers', params: { part: 'offsite' } }">The uplink, and when it is safe</RouterLink>
  </p>
</template>
