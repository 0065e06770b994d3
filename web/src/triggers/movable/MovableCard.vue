<script setup lang="ts">
import { computed } from 'vue'

import type { Alerts, Channel, Movable } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { three } from '../../ui/figures'
import TextField from '../../ui/TextField.vue'
import HourRibbon from '../parts/HourRibbon.vue'
import { useEdits } from '../parts/useEdits'
import { whenName } from '../causes/whenName'

/** A camera that moves: where it can look, where it rests, what sends it, and what it misses at home. */
const { channel, alerts } = defineProps<{ channel: Channel; alerts: Alerts | undefined }>()
const site = useSite()
const { problem, change } = useEdits()
const movable = computed<Movable>(() => channel.movable!)
const presets = computed(() => movable.value.presets ?? [])
const names = computed(() => presets.value.map((p) => [p.id, p.name] as const))
const set = (part: Partial<Movable>) =>
  change({ setMovable: { channel: channel.id, movable: { ...movable.value, ...part } } })
const rename = (id: string, name: string) =>
  name && set({ presets: presets.value.map((p) => (p.id === id ? { ...p, name } : p)) })
function add() {
  let n = presets.value.length + 1
  while (presets.value.some((p) => p.id === `preset-${n}`)) n++
  set({ presets: [...presets.value, { id: `preset-${n}`, name: `Preset ${n}` }] })
}
const hours = computed(() => alerts?.hours.away?.find((a) => a.channel === channel.id))
const away = computed(() => site.figures.get(channel.id)?.awayPercent)
/** What sends it where, for how long. */
const senders = computed(() =>
  (site.plan?.effects ?? []).flatMap((e) =>
    (e.preset ?? [])
      .filter((p) => p.channel === channel.id)
      .map((p) => ({
        by: whenName(site.plan, e.when),
        to: presets.value.find((x) => x.id === p.preset)?.name ?? p.preset,
        seconds: p.dwellSeconds,
      })),
  ),
)
</script>

<template>
  <article class="card" :data-movable="channel.id">
    <div>
      <h3>{{ channel.number }} {{ channel.name }}</h3>
      <div v-for="p in presets" :key="p.id" class="preset">
        <TextField label="Preset" :value="p.name" :maxlength="100" @change="(name) => rename(p.id, name)" />
        <button
          type="button"
          class="plain-button"
          :aria-label="`Remove the preset ${p.name}`"
          :disabled="p.id === movable.home"
          :title="p.id === movable.home ? 'It rests there' : ''"
          @click="set({ presets: presets.filter((x) => x.id !== p.id) })"
        >
          ×
        </button>
      </div>
      <ChoiceField label="Rests at" :value="movable.home" :choices="names" @change="(home) => set({ home })" />
      <button type="button" class="plain-button link" data-test="add-preset" @click="add">Another preset</button> ·
      <button type="button" class="plain-button link short" @click="change({ setMovable: { channel: channel.id } })">
        Make it a fixed camera
      </button>
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    </div>
    <div>
      <div class="awaited">
        <HourRibbon
          v-if="hours"
          :label="`${channel.name}: how much of each hour it looks elsewhere`"
          :ink="(hours.away ?? []).map((v) => 100 * v)"
          :say="(i) => `elsewhere for ${three(100 * (hours?.away?.[i] ?? 0))} % of it`"
        />
        <p v-if="hours" class="figures">
          <span
            >elsewhere for <b data-test="away">{{ three(away ?? 0) }} %</b> of the time</span
          >
          <span
            >during <b>{{ three(hours.eventsPercent) }} %</b> of the wanted events at home</span
          >
          <span
            ><b>{{ three(hours.missedPerDay) }}</b> a day missed for it, counted in the evidence</span
          >
        </p>
      </div>
      <p v-for="s in senders" :key="s.by + s.to">
        <b>{{ s.by }}</b> sends it to <b>{{ s.to }}</b> for {{ s.seconds }} s
      </p>
      <p v-if="!senders.length" class="soft">
        Nothing sends it. Tie a cause to one of its presets under
        <RouterLink :to="{ name: 'triggers', params: { part: 'causes' } }">What it causes</RouterLink>.
      </p>
    </div>
  </article>
</template>

<style scoped>
h3 {
  margin: 0 0 2px;
  font-size: inherit;
}

.preset {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 18px;
  column-gap: 4px;
  align-items: center;
}

p {
  margin: 2px 0;
}
</style>
