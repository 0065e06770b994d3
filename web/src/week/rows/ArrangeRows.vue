<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'

import type { Arrangement } from './rows'
import { useHand } from '../../hand/useHand'
import { count } from '../../ui/figures'

/** Finds, orders and groups the channels shown, and says what their ink is a share of. */
const how = defineModel<Arrangement>({ required: true })
defineProps<{ shown: number; all: number }>()
const hand = useHand()
const open = ref(false)
const box = useTemplateRef('box')
onClickOutside(box, () => (open.value = false))
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
const isPlain = computed(
  () =>
    how.value.sort === 'number' &&
    how.value.grouped &&
    !how.value.byRecorder &&
    !how.value.findings &&
    hand.ink === 'rate',
)
const set = (change: Partial<Arrangement>) => (how.value = { ...how.value, ...change })
</script>

<template>
  <div ref="box" class="arrange" @keydown.esc.stop="open = false">
    <input
      type="search"
      class="search"
      :value="how.search"
      :title="`Find in ${count(all, 'channel')}`"
      placeholder="Find channels"
      aria-label="Find channels"
      data-test="find-channels"
      @input="set({ search: ($event.target as HTMLInputElement).value })"
    />
    <button
      type="button"
      class="plain-button more"
      :class="{ changed: !isPlain }"
      :aria-expanded="open"
      aria-haspopup="true"
      data-test="arrange"
      title="Order, group, ink"
      @click="open = !open"
    >
      {{ isPlain ? 'Order' : shown === all ? 'Ordered' : shown }}
    </button>
    <div v-if="open" class="box sheet" role="group" aria-label="How channels are shown">
      <fieldset>
        <legend>Order by</legend>
        <label v-for="[id, name] in sorts" :key="id"
          ><input type="radio" name="sort" :checked="how.sort === id" :data-sort="id" @change="set({ sort: id })" />
          {{ name }}</label
        >
      </fieldset>
      <label
        ><input type="checkbox" :checked="how.grouped" data-test="grouped" @change="set({ grouped: !how.grouped })" />
        in groups</label
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
  </div>
</template>

<style scoped>
.arrange {
  position: relative;
  display: flex;
  gap: 6px;
  align-items: center;
  align-self: end;
  padding: 0 8px 3px;
  font-size: 12px;
}

.search {
  min-width: 0;
  flex: 1;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 1px 6px;
}

.more {
  text-decoration: underline;
}

.more.changed {
  color: var(--base);
  font-weight: 600;
}

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
