<script setup lang="ts">
import { computed } from 'vue'

import TypedHours from '../../duties/TypedHours.vue'
import { useHand } from '../../hand/useHand'
import { useSite } from '../../site/useSite'
import { spansOf } from '../../time/echo'
import { clock } from '../../time/week'
import ChoiceField from '../../ui/ChoiceField.vue'
import { usePaint } from '../painting/usePaint'
import { blocksOf, type AlikeDays, type Block } from './blocks'

/** The hours of a channel as a list: each with its duty, to be changed there, and hours that are typed. */
const site = useSite()
const hand = useHand()
const { paintHours } = usePaint()
const chosen = computed(() => hand.selection.filter((id) => !site.channels.get(id)?.noCamera))
const first = computed(() => site.channels.get(chosen.value[0] ?? ''))
const days = computed(() => blocksOf(site.ribbons.get(first.value?.id ?? '')?.rail ?? []))
const duties = computed(() => (site.plan?.duties ?? []).map((d) => [d.id, d.name] as const))

function change(a: AlikeDays, b: Block, duty: string) {
  const hours = [{ days: a.days, from: clock(b.from), to: clock(b.to) }]
  void paintHours(chosen.value, hours, spansOf(hours), duty)
}
</script>

<template>
  <section v-if="first" aria-label="Hours" data-test="hours">
    <h2>{{ first.name }}</h2>
    <p v-if="chosen.length > 1" class="soft">What is changed here is changed for all {{ chosen.length }} selected.</p>
    <div v-for="a in days" :key="a.words">
      <h3>{{ a.words }}</h3>
      <ul>
        <li v-for="b in a.blocks" :key="b.from" :data-block="`${a.days[0]} ${clock(b.from)}`">
          <span class="when">{{ clock(b.from) }}–{{ clock(b.to) }}</span>
          <ChoiceField
            bare
            :label="`${a.words}, ${clock(b.from)} to ${clock(b.to)}`"
            :value="b.duty"
            :choices="duties"
            @change="(duty) => change(a, b, duty)"
          />
        </li>
      </ul>
    </div>
    <h3>Other hours</h3>
    <ChoiceField label="Duty" :value="hand.duty" :choices="duties" @change="(duty) => (hand.picked = duty)" />
    <TypedHours
      class="other"
      label="Hours"
      act="Paint"
      :keep="(hours) => paintHours(chosen, hours.blocks, spansOf(hours.blocks))"
    />
  </section>
  <p v-else class="soft">Select a channel: its hours stand here as a list, to be changed and typed.</p>
</template>

<style scoped>
h3 {
  margin: 10px 0 2px;
}

p {
  margin: 2px 0;
}

ul {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  min-height: var(--row);
}

.when {
  white-space: nowrap;
}

.other {
  flex-wrap: wrap;
}
</style>
