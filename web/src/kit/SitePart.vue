<script setup lang="ts">
import { ref } from 'vue'

import type { Edit, Problem } from '../api/types'
import { inWords } from '../api/client'
import { useSite } from '../site/useSite'
import TextField from '../ui/TextField.vue'
import WorthMeasuring from './WorthMeasuring.vue'

/** What the site is called and where it is. */
const site = useSite()
const problem = ref('')
const zones = Intl.supportedValuesOf('timeZone')

function set(change: NonNullable<Edit['setSite']>) {
  problem.value = ''
  site.change([{ setSite: change }], undefined, (p: Problem) => (problem.value = inWords(p)))
}
</script>

<template>
  <div class="site">
    <section class="sheet">
      <h2>Site</h2>
      <TextField label="Name" :value="site.plan!.site.name" @change="(name) => set({ name })" />
      <TextField label="Customer" :value="site.plan!.site.customer" @change="(customer) => set({ customer })" />
      <TextField
        label="Time zone"
        :value="site.plan!.site.timeZone"
        :choices="zones"
        :problem="problem"
        @change="(timeZone) => set({ timeZone })"
      />
      <TextField label="This plan is called" :value="site.plan!.name" @change="(plan) => set({ plan })" />
    </section>
    <WorthMeasuring />
  </div>
</template>

<style scoped>
.site {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 560px));
  gap: 16px;
  align-items: start;
  padding: 16px;
  overflow: auto;
}
</style>
