<script setup lang="ts">
import { useHand } from '../../hand/useHand'
import type { Arrangement } from './rows'

/** How the channels are ordered and grouped, which are shown, and what their ink is a share of. */
const how = defineModel<Arrangement>({ required: true })
const hand = useHand()
const sorts = [
  ['number', 'number'],
  ['name', 'name'],
  ['gigabytes', 'GB a day'],
  ['share', 'share of the disk'],
  ['short', 'days short'],
  ['missed', 'events missed'],
] as const
const inks = [
  ['rate', 'its own full rate'],
  ['disk', 'the site’s disk'],
] as const
const set = (change: Partial<Arrangement>) => (how.value = { ...how.value, ...change })
</script>

<template>
  <div class="box sheet" role="group" aria-label="How channels are shown">
    <fieldset>
      <legend>Order by</legend>
      <label v-for="[id, name] in sorts" :key="id"
        ><input type="radio" name="sort" :checked="how.sort === id" :data-sort="id" @change="set({ sort: id })" />
        {{ name }}</label
      >
    </fieldset>
    <label
      ><input type="checkbox" :checked="how.grouped" data-test="grouped" @change="set({ grouped: !how.grouped })" /> in
      groups</label
    >
    <label
      ><input
        type="checkbox"
        :checked="how.byRecorder"
        data-test="by-recorder"
        @change="set({ byRecorder: !how.byRecorder })"
      />
      by recorder</label
    >
    <label
      ><input
        type="checkbox"
        :checked="how.findings"
        data-test="only-findings"
        @change="set({ findings: !how.findings })"
      />
      only those with findings</label
    >
    <fieldset>
      <legend>Ink is a share of</legend>
      <label v-for="[id, name] in inks" :key="id"
        ><input type="radio" name="ink" :checked="hand.ink === id" :data-ink="id" @change="hand.ink = id" />
        {{ name }}</label
      >
    </fieldset>
  </div>
</template>

<style scoped>
.box {
  position: absolute;
  z-index: 20;
  top: 26px;
  left: 8px;
  width: 210px;
  display: grid;
  gap: 4px;
  box-shadow: 0 4px 16px color-mix(in srgb, var(--ink) 20%, transparent);
}

fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
}

legend {
  color: var(--soft);
  padding: 0;
}
</style>
