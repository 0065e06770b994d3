<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Finding, Hours } from '../../api/types'
import MendButton from '../../findings/MendButton.vue'
import type { Tried } from '../../findings/useEffects'
import { three } from '../../ui/figures'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import type { TieRow } from './useEnds'
import { aDay, doesNames, whyWords } from './words'

/** One tie: what causes what, how often a day, when, and why it does not. */
const { row } = defineProps<{
  row: TieRow
  finding: Finding | undefined
  tried: Tried
}>()
const emit = defineEmits<{ untie: []; hours: [at: Hours[]]; dwell: [seconds: number] }>()
const open = ref(false)
const f = computed(() => row.figures)
/** Part of what happens is lost, and when it is not. */
const part = computed(() => {
  const share = f.value.actsPerDay / f.value.happensPerDay
  return !f.value.why && share < 0.999
    ? `, ${three(100 * share)} % of what happens; it listens ${f.value.hours ?? 'at times'}`
    : ''
})
</script>

<template>
  <li :data-tie="row.key">
    <p>
      <b>{{ row.cause.name }}</b>
      <span v-if="row.cause.line.kind === 'lost'"> (picture lost)</span>
      <span v-else-if="row.cause.line.kind === 'tampered'"> (tampering)</span>
      {{ doesNames[row.target.does].toLowerCase() }} <b>{{ row.target.name }}</b><template v-if="row.dwell">
        for {{ row.dwell }} s</template
      >
    </p>
    <p class="soft">
      <b v-if="f.why" class="short" data-test="why">never acts: {{ whyWords[f.why] }}</b>
      <template v-else>{{ aDay(f.actsPerDay) }}{{ part }}</template>
      <button type="button" class="plain-button link" :aria-expanded="open" data-test="tie-hours" @click="open = !open">
        {{ row.hours ? 'at some hours' : 'always' }}
      </button>
      <button type="button" class="plain-button link" data-test="untie" @click="emit('untie')">Untie</button>
    </p>
    <p v-if="finding" class="mend">
      <span v-if="!finding.places" class="soft">{{ finding.reason }} </span>
      <MendButton v-if="finding.fix" :finding="finding" :tried="tried" />
      <span v-else class="soft">{{ finding.decision }}</span>
    </p>
    <div v-if="open" class="more">
      <HoursField label="It applies" empty="always" :value="row.hours" @change="(at) => emit('hours', at)" />
      <NumberField
        v-if="row.dwell"
        label="Looks there for"
        unit="s"
        :value="row.dwell"
        member="effects.preset.dwellSeconds"
        @change="(s) => emit('dwell', s)"
      />
    </div>
  </li>
</template>

<style scoped>
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}

p {
  margin: 0;
}

.link {
  margin-left: 8px;
}

.mend {
  font-size: var(--second);
}

.mend .act {
  display: block;
  margin: 3px 0 4px;
}

.more {
  padding: 3px 0 2px 10px;
}
</style>
