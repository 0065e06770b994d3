<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { useSiteDevices } from '../../site/useSiteDevices'
import DeviceEars from '../devices/DeviceEars.vue'

/** The sign of motion as recorders give it, while somebody walks. */
const site = useSite()
const { list, nameOf } = useSiteDevices()
const recorders = computed(() => list.value.filter((d) => d.recorder && d.readAt))
const may = computed(() => site.role === 'planner' || site.role === 'fitter')
</script>

<template>
  <section v-if="may && recorders.length" aria-label="The sign, as recorders give it" data-test="walk-ears">
    <h2>The sign, live</h2>
    <div v-for="r in recorders" :key="r.id">
      <p class="soft">{{ nameOf(r) }}</p>
      <DeviceEars :device="r" />
    </div>
  </section>
</template>

<style scoped>
h2 {
  margin-top: 16px;
}

p {
  margin: 4px 0;
}
</style>
