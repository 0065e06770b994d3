<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { computed, ref } from 'vue'

import { inWords } from '../api/client'
import type { Ribbon, Week } from '../api/types'
import StillRibbon from '../drawing/StillRibbon.vue'
import TypedHours from '../duties/TypedHours.vue'
import { useHand } from '../hand/useHand'
import { useSite } from '../site/useSite'
import { hoursOf, spansOf } from '../time/echo'
import { inWords as hoursInWords, placeIn, WEEK, type Span } from '../time/week'
import { count } from '../ui/figures'
import { vTyped } from '../ui/typed'

/** One named week: its name, who follows it, and its ribbon, painted here for all of them. */
const { week, width } = defineProps<{ week: Week; width: number }>()
const emit = defineEmits<{ problem: [text: string]; copy: [] }>()
const site = useSite()
const hand = useHand()
const reading = useMediaQuery('(max-width: 500px)') // a phone
const whole = { from: 0, to: WEEK }

const followers = computed(() => (site.plan?.channels ?? []).filter((c) => c.week === week.id))
const ids = computed(() => followers.value.map((c) => c.id))
const dates = computed(() => (site.plan?.site.specialDays ?? []).filter((d) => d.week === week.id))
const duty = computed(() => site.duties.get(hand.duty)?.name)

/** The first channel that follows the week lends it its ink; without followers it has none. */
const lender = computed(() => followers.value.find((c) => !c.noCamera && site.ribbons.has(c.id)))
const full = computed(() => site.figures.get(lender.value?.id ?? '')?.fullKbps ?? 1)
const ribbon = computed<Ribbon>(
  () =>
    site.ribbons.get(lender.value?.id ?? '') ?? {
      id: week.id,
      rail: site.rails.get(week.id) ?? [],
      ink: { from: [0], base: [0], motion: [0], alarm: [0], written: [0] },
      deaf: [],
    },
)

/** The stroke over the week, from where it began. */
const stroke = ref<{ from: number; span: Span }>()
const hours = computed(() => (stroke.value ? hoursOf(stroke.value.span, hand.means) : []))

function minuteAt(event: PointerEvent): number {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return Math.max(0, Math.min(WEEK, ((event.clientX - box.left) / box.width) * WEEK))
}

function down(event: PointerEvent) {
  if (event.button !== 0 || reading.value) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  stroke.value = { from: minuteAt(event), span: { from: 0, to: 0 } }
  move(event)
}

function move(event: PointerEvent) {
  if (!stroke.value) return
  const g = event.ctrlKey ? 1 : event.shiftKey ? 5 : 30
  const [a, b] = [stroke.value.from, minuteAt(event)].sort((x, y) => x - y) as [number, number]
  const from = Math.min(WEEK - g, Math.round(a / g) * g)
  stroke.value = { ...stroke.value, span: { from, to: Math.min(WEEK, Math.max(from + g, Math.round(b / g) * g)) } }
}

function up() {
  const s = stroke.value
  stroke.value = undefined
  if (s) paint(hoursOf(s.span, hand.means))
}

function key(event: KeyboardEvent) {
  if (event.key === 'Escape') stroke.value = undefined
  else if (event.key === 'Enter') paint([{ from: '00:00', to: '24:00' }])
  else return
  event.preventDefault()
}

function paint(hours: ReturnType<typeof hoursOf>) {
  site.change([{ paint: { weeks: [week.id], hours, duty: hand.duty } }])
}

function remove() {
  emit('problem', '')
  site.change([{ removeWeek: { week: week.id } }], undefined, (p) => emit('problem', `${week.name}: ${inWords(p)}`))
}

function rename(event: Event) {
  const name = (event.target as HTMLInputElement).value.trim()
  if (name && name !== week.name) site.change([{ setWeek: { week: { ...week, name } } }])
}
</script>

<template>
  <article class="entry" :data-week="week.id">
    <div>
      <input
        v-typed="week.name"
        class="name"
        :aria-label="`Name of the week ${week.name}`"
        maxlength="100"
        @change="rename"
      />
      <p class="soft">
        <button
          type="button"
          class="plain-button link"
          :disabled="!ids.length"
          :title="followers.map((c) => c.name).join(', ')"
          @click="(hand.show(ids), $router.push({ name: 'week' }))"
        >
          {{ count(ids.length, 'channel') }}
        </button>
        {{ ids.length === 1 ? 'follows' : 'follow' }} it<template v-if="lender">; drawn for {{ lender.name }}</template
        ><template v-if="dates.length">, and {{ count(dates.length, 'special day') }}</template>
      </p>
    </div>
    <div
      class="ribbon"
      tabindex="0"
      role="button"
      :aria-label="`${week.name}: drag to paint, Enter paints all of it with the duty in hand`"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="stroke = undefined"
      @keydown="key"
    >
      <StillRibbon :ribbon="ribbon" :duties="site.duties" :full="full" :width="width" :height="26" />
      <template v-if="stroke">
        <span v-for="(s, i) in spansOf(hours)" :key="i" class="stroke" :style="placeIn(whole, s)" />
      </template>
    </div>
    <div class="acts">
      <span v-if="stroke" class="soft"
        >{{ hoursInWords(hours) }}: {{ duty }}, for {{ count(ids.length, 'channel') }}</span
      >
      <template v-else>
        <TypedHours
          v-if="!reading"
          label="Type hours"
          act="Paint"
          :title="`${duty}, for ${count(ids.length, 'channel')}`"
          :keep="(typed) => paint(typed.blocks)"
        />
        <button
          type="button"
          class="plain-button link"
          :disabled="!hand.selection.length"
          @click="site.change([{ followWeek: { channels: hand.selection, week: week.id } }])"
        >
          Let
          {{ hand.selection.length ? count(hand.selection.length, 'selected channel') : 'selected channels' }} follow
        </button>
        <button type="button" class="plain-button link" @click="emit('copy')">Duplicate</button>
        <button
          v-if="ids.length"
          type="button"
          class="plain-button link"
          data-test="depart-all"
          @click="site.change([{ departWeek: { channels: ids } }])"
        >
          Unlink all channels
        </button>
        <a :href="`/api/plans/${site.planId}/weeks/${encodeURIComponent(week.id)}/calendar`" download>As a calendar</a>
        <button type="button" class="plain-button link short" data-test="remove-week" @click="remove">Remove</button>
      </template>
    </div>
  </article>
</template>

<style scoped>
.entry {
  padding: 8px 0 6px;
  border-top: 1px solid var(--rule);
}

.name {
  width: 100%;
  font-weight: 600;
  background: none;
  border-color: transparent;
  margin-left: -6px;
}

.name:hover,
.name:focus {
  background: var(--sheet);
  border-color: var(--edge);
}

p {
  margin: 2px 0;
}

.ribbon {
  position: relative;
  align-self: start;
  padding-bottom: 3px;
  background: var(--sheet) repeating-linear-gradient(to right, var(--rule) 0 1px, transparent 1px calc(100% / 7));
  cursor: crosshair;
  touch-action: none;
}

.acts {
  grid-column: 2;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  align-items: center;
  font-size: var(--second);
}

@media (max-width: 760px) {
  .acts {
    grid-column: 1;
  }
}

@media (max-width: 500px) {
  .acts {
    display: none;
  }
}
</style>
