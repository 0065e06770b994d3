<script setup lang="ts">
import { computed } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useSite } from '../../site/useSite'
import DeviceEars from '../devices/DeviceEars.vue'

/** The sign of motion as recorders give it, while somebody walks. */
const site = useSite()
const { data } = useAnswer(
  () => [site.planId, site.handed],
  () => (site.planId ? api.GET('/api/plans/{id}/devices', { params: site.here }) : undefined),
  { keep: true },
)
const recorders = computed(() =>
  (data.value?.devices ?? [])
    .filter((d) => d.recorder && d.readAt)
    .map((d) => ({ device: d, name: site.plan?.recorders.find((r) => r.id === d.recorder)?.name ?? d.address })),
)
const may = computed(() => site.role === 'planner' || site.role === 'fitter')
</script>

<template>
  <section v-if="may && recorders.length" aria-label="The sign, as recorders give it" data-test="walk-ears">
    <h2>The sign, live</h2>
    <div v-for="r in recorders" :key="r.device.id">
      <p class="soft">{{ r.name }}</p>
      <DeviceEars :device="r.device" />
    </div>
  </section>
</template>

<style scoped>
h2 {
  font-size: 16px;
  margin-top: 16px;
}

p {
  margin: 4px 0;
}
</style>
