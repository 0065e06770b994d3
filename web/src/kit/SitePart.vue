<script setup lang="ts">
import { computed, ref } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import type { Edit, Problem } from '../api/types'
import { inWords } from '../api/client'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import TextField from '../ui/TextField.vue'
import WorthMeasuring from './WorthMeasuring.vue'

/** What the site is called and where it is. */
const site = useSite()
const problem = ref('')
/** Cameras in whose picture nothing is drawn, and of which nobody says what they catch. */
const undrawn = computed(
  () =>
    (site.plan?.channels ?? []).filter(
      (c) => !c.noCamera && c.detection?.on && !c.detection.areas && c.detection.catch == null,
    ).length,
)
const zones = Intl.supportedValuesOf('timeZone')

function set(change: NonNullable<Edit['setSite']>) {
  problem.value = ''
  site.change([{ setSite: change }], undefined, (p: Problem) => (problem.value = inWords(p)))
}
</script>

<template>
  <div class="site">
    <section class="sheet about">
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
      <TextField
        label="Address"
        :value="site.plan!.site.address"
        :rows="2"
        :maxlength="500"
        @change="(address) => set({ address })"
      />
      <TextField
        label="Contact there"
        :value="site.plan!.site.contact"
        :rows="2"
        :maxlength="500"
        placeholder="Name, telephone, mail"
        @change="(contact) => set({ contact })"
      />
      <TextField
        label="Notes"
        :value="site.plan!.site.notes"
        :rows="3"
        :maxlength="4000"
        placeholder="Ways in, keys, ladders, whom to tell"
        @change="(notes) => set({ notes })"
      />
      <TextField
        label="Papers begin with"
        :value="site.plan!.site.wording"
        :rows="3"
        :maxlength="2000"
        placeholder="What papers for the customer say first"
        @change="(wording) => set({ wording })"
      />
      <TextField label="This plan is called" :value="site.plan!.name" @change="(plan) => set({ plan })" />
    </section>
    <section class="sheet" aria-label="What to do next" data-test="next">
      <h2>What to do next</h2>
      <ol>
        <li>
          <b>Measure</b> what is worth it: “Worth measuring” says what narrows the likely range, and by how much. Clips
          go on <RouterLink :to="{ name: 'kit', params: { part: 'channels' } }">Channels</RouterLink>, event logs on
          <RouterLink :to="{ name: 'kit', params: { part: 'activities' } }">Activities</RouterLink>.
        </li>
        <li v-if="undrawn">
          <b>Draw</b> what {{ count(undrawn, 'camera') }} see, on
          <RouterLink :to="{ name: 'triggers' }">Triggers</RouterLink>: nothing is known of what they notice; guessed.
        </li>
        <li>
          <b>Ask</b> the customer what <RouterLink :to="{ name: 'findings' }">Findings</RouterLink> leave to be decided.
        </li>
        <li><RouterLink :to="{ name: 'week' }">Plan the week</RouterLink>, channel by channel.</li>
      </ol>
    </section>
    <WorthMeasuring />
    <PlanGlance class="glance" />
  </div>
</template>

<style scoped>
ol {
  margin: 6px 0 0;
  padding-left: 20px;
}

.site {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(320px, 100%), 1fr));
  gap: 16px;
  align-items: start;
  padding: 16px;
  overflow: auto;
}

.glance {
  display: none;
}

@media (min-width: 1160px) {
  .site {
    grid-template: auto minmax(0, 1fr) / minmax(0, 420px) minmax(0, 1fr) minmax(0, 1fr);
    flex: 1 1 0;
  }

  .about {
    grid-row: 1 / -1;
  }

  [data-test='knowing'] {
    grid-area: 1 / 3 / 3 / 4;
  }

  .glance {
    display: block;
    grid-area: 2 / 2 / 3 / 3;
    align-self: stretch;
    padding: 0;
  }
}
</style>
