<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'

/** Recorders and cameras at which something was changed after they were set. */
const site = useSite()
const { data } = useAnswer(
  () => [site.planId, site.handed],
  () => (site.planId ? api.GET('/api/plans/{id}/devices', { params: site.here }) : undefined),
  { keep: true },
)
const drifted = computed(() => (data.value?.devices ?? []).filter((d) => d.drifted || (d.trouble && d.writtenAt)))
const name = (d: (typeof drifted.value)[number]) =>
  (d.recorder
    ? site.plan?.recorders.find((r) => r.id === d.recorder)?.name
    : site.plan?.channels.find((c) => c.id === d.channel)?.name) ?? d.address
</script>

<template>
  <section v-if="drifted.length" aria-label="At the devices" data-test="at-devices">
    <h2>At the devices</h2>
    <ul>
      <li v-for="d in drifted" :key="d.id">
        <b>{{ name(d) }}</b>:
        <template v-if="d.drifted">{{ count(d.drifted, 'setting') }} changed since it was set.</template>
        <template v-if="d.trouble"> {{ d.trouble }}</template>
        <RouterLink :to="{ name: 'handover', params: { part: 'devices' }, query: { device: d.id } }"> Look</RouterLink>
      </li>
    </ul>
  </section>
</template>
