<script setup lang="ts">
import { computed } from 'vue'

import { useSiteDevices } from '../site/useSiteDevices'
import { count } from '../ui/figures'

/** Recorders and cameras at which something was changed after they were set. */
const { list, nameOf } = useSiteDevices()
const drifted = computed(() => list.value.filter((d) => d.drifted || (d.trouble && d.writtenAt)))
</script>

<template>
  <section v-if="drifted.length" aria-label="At the devices" data-test="at-devices">
    <h2>At the devices</h2>
    <ul>
      <li v-for="d in drifted" :key="d.id">
        <b>{{ nameOf(d) }}</b>:
        <template v-if="d.drifted">{{ count(d.drifted, 'setting') }} changed since it was set.</template>
        <template v-if="d.trouble"> {{ d.trouble }}</template>
        {{ ' '
        }}<RouterLink :to="{ name: 'handover', params: { part: 'devices' }, query: { device: d.id } }">Look</RouterLink>
      </li>
    </ul>
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0 12px;
  padding: 0;
}
</style>
