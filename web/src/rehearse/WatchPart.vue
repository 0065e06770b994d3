<script setup lang="ts">
import { useEventListener, useIntervalFn, usePreferredReducedMotion, useRafFn, watchThrottled } from '@vueuse/core'
import { computed, ref } from 'vue'

import { useSite } from '../site/useSite'
import SegmentChoice from '../ui/SegmentChoice.vue'
import { momentOf } from './clock'
import { firstFrom } from './drawTimeline'
import SceneNow from './SceneNow.vue'
import { inOrder, rankOf, tileAt } from './tiles'
import type { Rehearsing } from './useRehearsal'

/** Plays the days: channels as tiles that show what is written and why, what the monitors show, where cameras look. */
const { r } = defineProps<{ r: Rehearsing }>()
const site = useSite()
const speed = ref<'1' | '10' | '60' | '600'>('60')
const playing = ref(false)
const still = usePreferredReducedMotion()

function advance(seconds: number) {
  const at = r.head.value + seconds * Number(speed.value)
  r.seek(at)
  if (at >= r.seconds.value) playing.value = false
  const { from, to } = r.view.value
  if (r.head.value > to || r.head.value < from) r.show(r.head.value + (to - from) / 2.2)
}
// With less motion asked for it moves once a second.
useRafFn(({ delta }) => {
  if (playing.value && still.value !== 'reduce') advance(Math.min(delta, 200) / 1000)
})
useIntervalFn(() => {
  if (playing.value && still.value === 'reduce') advance(1)
}, 1000)
useEventListener(document, 'keydown', (event) => {
  const target = event.target as HTMLElement
  if (target.closest('input, textarea, select, button, [role=listbox], [data-test=timeline]')) return
  if (event.key === ' ') {
    event.preventDefault()
    playing.value = !playing.value
  } else if (event.key === 'ArrowRight') advance(1)
  else if (event.key === 'ArrowLeft') advance(-1)
})

const layers = ['base layer', 'event of its own', 'another’s event or alarm', 'button']
const now = computed(() => r.cameras.value.map((c) => tileAt(c, r.head.value)))
// Those that record come first; they change places once a second at most, so that one can be followed.
const order = ref(inOrder(now.value))
watchThrottled(
  () => now.value.map((t) => t.id + rankOf(t)).join(' '),
  () => (order.value = inOrder(now.value)),
  { throttle: 1000 },
)
const tiles = computed(() => {
  const of = new Map(now.value.map((t) => [t.id, { ...t, name: site.channels.get(t.id)?.name ?? t.id }]))
  return order.value.flatMap((id) => of.get(id) ?? [])
})
/** The camera that is looked through: the chosen one, at first that of the event in hand, or of one that goes on. */
const goesOn = () => now.value.find((t) => t.event && t.layer > 0)?.id
const chosen = ref(r.pointed.value?.channel || goesOn() || '')
const looked = computed(() => (now.value.some((t) => t.id === chosen.value) ? chosen.value : (order.value[0] ?? '')))
const shown = computed(() =>
  (r.data.value?.monitors ?? []).map((m) => {
    const at = r.head.value
    const k = firstFrom(m.from, at + 1e-6) - 1
    const on = k >= 0 && at < m.to[k]!
    return { name: m.name, what: on ? site.channels.get(m.channel[k]!)?.name || 'an alarm' : 'nothing' }
  }),
)
</script>

<template>
  <section data-test="watch">
    <div class="player">
      <button type="button" class="act" data-test="play" @click="playing = !playing">
        {{ playing ? 'Pause' : 'Play' }}
      </button>
      <SegmentChoice
        v-model="speed"
        label="Speed"
        :ways="[
          ['1', '1×'],
          ['10', '10×'],
          ['60', '60×'],
          ['600', '600×'],
        ]"
      />
      <input
        :value="r.head.value"
        type="range"
        min="0"
        :max="r.seconds.value"
        step="1"
        aria-label="Moment"
        data-test="scrub"
        @input="(e) => r.seek(Number((e.target as HTMLInputElement).value))"
      />
    </div>
    <p v-if="r.data.value" role="status" data-test="now">
      {{ momentOf(r.data.value, Math.min(r.head.value, r.seconds.value - 1)) }}
    </p>
    <p v-for="m in shown" :key="m.name" class="soft">{{ m.name }} shows {{ m.what }}.</p>
    <h2 v-if="looked">Through {{ site.channels.get(looked)?.name }}</h2>
    <SceneNow v-if="looked" :key="looked" :r="r" :channel="looked" />
    <ul class="tiles">
      <li
        v-for="t in tiles"
        :key="t.id"
        v-memo="[t.layer, t.away, t.event, t.name, looked === t.id]"
        :class="[`l${t.layer}`, { event: t.event }]"
        :title="t.layer < 0 ? 'nothing is written' : layers[t.layer]"
        :data-tile="t.id"
      >
        <button
          type="button"
          class="plain-button"
          :aria-pressed="looked === t.id"
          title="Look through this camera"
          @click="chosen = t.id"
        >
          <b>{{ t.name }}</b>
        </button>
        <span>{{ t.away ? 'looks elsewhere' : t.layer < 0 ? 'nothing' : layers[t.layer] }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.player {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px 10px;
  align-items: center;
}

.player input {
  grid-column: 1 / -1;
}

.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: 5px;
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}

li {
  border: 1px solid var(--rule);
  border-left-width: 5px;
  border-radius: 4px;
  padding: 3px 6px;
  min-width: 0;
  font-size: var(--second);
}

li button {
  display: block;
  width: 100%;
  text-align: left;
}

li b,
li span {
  display: block;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.l0 {
  border-left-color: var(--base);
}

.l1 {
  border-left-color: var(--motion);
  background: color-mix(in srgb, var(--motion) 12%, transparent);
}

.l2 {
  border-left-color: var(--alarm);
  background: color-mix(in srgb, var(--alarm) 12%, transparent);
}

.l3 {
  border-left-color: var(--ink);
  background: var(--band);
}

.event b {
  color: var(--base);
}
</style>
