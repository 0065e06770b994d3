<script setup lang="ts">
import { computed } from 'vue'

import type { Channel, Rate } from '../api/types'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'

const props = defineProps<{ channels: Channel[]; which: 'main' | 'sub' | 'third' }>()
const site = useSite()

const stream = computed(() => props.channels[0]!.streams![props.which]!)
const rate = computed(() => stream.value.rate)
/** What is set of the rate on the Kit page only. */
const besides = computed(() =>
  [rate.value.adaptive && 'adaptive', rate.value.maxKbps && `at most ${rate.value.maxKbps} kbit/s`, rate.value.night && `×${rate.value.night.factor} at night`].filter(Boolean).join(', '),
)
const mixed = computed(() => props.channels.some((c) => JSON.stringify(c.streams?.[props.which]?.rate) !== JSON.stringify(rate.value)))
const names = { main: 'Main stream', sub: 'Sub stream', third: 'Third stream' }
const known = [['guess', 'a guess'], ['datasheet', 'a datasheet'], ['surveyed', 'surveyed'], ['measured', 'measured']] as const
const kinds = [['constant', 'constant'], ['variable', 'variable'], ['modelled', 'modelled']] as const

function set(change: Partial<Rate>) {
  const channels = props.channels.filter((c) => c.streams?.[props.which]).map((c) => c.id)
  site.change([{ setRate: { channels, stream: props.which, rate: { ...rate.value, ...change } } }])
}

/** Goes over to another kind of rate with figures near those of the present one. */
function become(kind: Rate['kind']) {
  const was = rate.value
  const active = was.activeKbps ?? was.kbps ?? 4000
  const channels = props.channels.filter((c) => c.streams?.[props.which]).map((c) => c.id)
  const rates: Record<Rate['kind'], Rate> = {
    constant: { kind, kbps: active, known: was.known ?? 'guess' },
    variable: { kind, idleKbps: was.idleKbps ?? Math.round(active / 3), activeKbps: active, known: 'guess', night: was.night },
    modelled: { kind, quality: 3, scene: 'moderate', night: was.night },
  }
  site.change([{ setRate: { channels, stream: props.which, rate: rates[kind] } }])
}
</script>

<template>
  <fieldset>
    <legend>{{ names[which] }} <span class="soft">{{ stream.codec.toUpperCase() }} {{ stream.width }}×{{ stream.height }}, {{ stream.fps }}/s</span></legend>
    <p v-if="mixed" class="soft">They differ; the figures are {{ channels[0]!.name }}'s.</p>
    <ChoiceField label="Bitrate" :value="rate.kind" :choices="kinds" @change="become" />
    <NumberField v-if="rate.kind === 'constant'" label="Always" unit="kbit/s" :value="rate.kbps" :min="1" :max="1000000" data-field="kbps" @change="(kbps) => set({ kbps })" />
    <template v-if="rate.kind === 'variable'">
      <NumberField label="Still" unit="kbit/s" :value="rate.idleKbps" :min="1" :max="1000000" data-field="idle" @change="(idleKbps) => set({ idleKbps })" />
      <NumberField label="Moving" unit="kbit/s" :value="rate.activeKbps" :min="1" :max="1000000" data-field="active" @change="(activeKbps) => set({ activeKbps })" />
    </template>
    <template v-if="rate.kind === 'modelled'">
      <ChoiceField label="Quality" :value="rate.quality" :choices="[[1, '1, least'], [2, '2'], [3, '3, medium'], [4, '4'], [5, '5, best']] as const" @change="(quality) => set({ quality })" />
      <ChoiceField label="Scene" :value="rate.scene" :choices="[['still', 'still'], ['moderate', 'moderate'], ['busy', 'busy']] as const" @change="(scene) => set({ scene })" />
    </template>
    <ChoiceField v-else label="Known from" :value="rate.known" :choices="known" @change="(k) => set({ known: k })" />
    <p v-if="besides" class="soft">Set in Kit: {{ besides }}.</p>
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 8px 0 0;
  padding: 6px 0 0;
  border: 0;
  border-top: 1px solid var(--rule);
}

legend {
  float: left;
  width: 100%;
  padding: 0;
  font-weight: 600;
}

legend .soft {
  font-weight: 400;
  font-size: 12px;
}

legend + * {
  clear: both;
}
</style>
