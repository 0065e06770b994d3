<script setup lang="ts">
import { useElementSize, useMediaQuery } from '@vueuse/core'
import { computed, ref, useTemplateRef } from 'vue'

import { inWords } from '../api/client'
import type { Ribbon, Week } from '../api/types'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import StillRibbon from '../drawing/StillRibbon.vue'
import TypedHours from '../duties/TypedHours.vue'
import { hoursOf, spansOf } from '../time/echo'
import { dayNames, inWords as hoursInWords, placeIn, WEEK, type Span } from '../time/week'
import { useHand } from '../hand/useHand'
import CalendarImport from './CalendarImport.vue'

/** Named weeks as small ribbons: painted here for all that follow them. */
const site = useSite()
const hand = useHand()
const axis = useTemplateRef('axis')
const { width } = useElementSize(axis)
const problem = ref('')
const reading = useMediaQuery('(max-width: 500px)') // a phone
const whole = { from: 0, to: WEEK }
const weeks = computed(() => site.plan?.weeks ?? [])
const followers = (id: string) => (site.plan?.channels ?? []).filter((c) => c.week === id)
const dates = (id: string) => (site.plan?.site.specialDays ?? []).filter((d) => d.week === id)
const ownWeeks = computed(() => (site.plan?.channels ?? []).filter((c) => typeof c.week !== 'string' && !c.noCamera))

/** The first channel that follows a week lends it its ink; without followers it has none. */
const lender = (week: Week) => followers(week.id).find((c) => !c.noCamera && site.ribbons.has(c.id))
const inked = (week: Week): Ribbon => site.ribbons.get(lender(week)?.id ?? '') ?? ribbon(week)
const full = (week: Week) => site.figures.get(lender(week)?.id ?? '')?.fullKbps ?? 1
const ribbon = (week: Week): Ribbon => ({
  id: week.id,
  rail: site.rails.get(week.id) ?? [],
  ink: { from: [0], base: [0], motion: [0], alarm: [0], written: [0] },
})

/** The stroke over a week, from where it began. */
const stroke = ref<{ week: string; from: number; span: Span }>()
const hours = computed(() => (stroke.value ? hoursOf(stroke.value.span, hand.reach) : []))

function minuteAt(event: PointerEvent): number {
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  return Math.max(0, Math.min(WEEK, ((event.clientX - box.left) / box.width) * WEEK))
}

function down(event: PointerEvent, week: string) {
  if (event.button !== 0 || reading.value) return
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  stroke.value = { week, from: minuteAt(event), span: { from: 0, to: 0 } }
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
  if (s) site.change([{ paint: { weeks: [s.week], hours: hoursOf(s.span, hand.reach), duty: hand.duty } }])
}

function key(event: KeyboardEvent, week: Week) {
  if (event.key === 'Escape') stroke.value = undefined
  else if (event.key === 'Enter')
    site.change([{ paint: { weeks: [week.id], hours: [{ from: '00:00', to: '24:00' }], duty: hand.duty } }])
  else return
  event.preventDefault()
}

async function add(week: Omit<Week, 'id'>) {
  const [id] = (await site.freeIds('week', week.name)) ?? []
  if (id) site.change([{ setWeek: { week: { ...week, id } } }])
}

function remove(week: Week) {
  problem.value = ''
  site.change([{ removeWeek: { week: week.id } }], undefined, (p) => (problem.value = `${week.name}: ${inWords(p)}`))
}

function rename(week: Week, name: string) {
  if (name && name !== week.name) site.change([{ setWeek: { week: { ...week, name } } }])
}
</script>

<template>
  <div class="gallery">
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <p v-if="!weeks.length" class="soft">
      A named week is shared by the channels that follow it: painted once, it holds for all of them. Make one here, or
      save a channel's week as one from its row's menu on the Week page.
    </p>
    <div class="head">
      <span />
      <div ref="axis" class="days">
        <span v-for="d in dayNames" :key="d">{{ d.slice(0, 3) }}</span>
      </div>
    </div>
    <article v-for="w in weeks" :key="w.id" class="entry" :data-week="w.id">
      <div>
        <input
          class="name"
          :value="w.name"
          :aria-label="`Name of the week ${w.name}`"
          maxlength="100"
          @change="rename(w, ($event.target as HTMLInputElement).value.trim())"
        />
        <p class="soft">
          <button
            type="button"
            class="plain-button link"
            :disabled="!followers(w.id).length"
            :title="
              followers(w.id)
                .map((c) => c.name)
                .join(', ')
            "
            @click="(hand.show(followers(w.id).map((c) => c.id)), $router.push({ name: 'week' }))"
          >
            {{ count(followers(w.id).length, 'channel') }}
          </button>
          {{ followers(w.id).length === 1 ? 'follows' : 'follow' }} it<template v-if="lender(w)"
            >; drawn for {{ lender(w)!.name }}</template
          ><template v-if="dates(w.id).length">, and {{ count(dates(w.id).length, 'special day') }}</template>
        </p>
      </div>
      <div
        class="ribbon"
        tabindex="0"
        role="button"
        :aria-label="`${w.name}: drag to paint, Enter paints all of it with the duty in hand`"
        @pointerdown="down($event, w.id)"
        @pointermove="move"
        @pointerup="up"
        @pointercancel="stroke = undefined"
        @keydown="key($event, w)"
      >
        <StillRibbon :ribbon="inked(w)" :duties="site.duties" :full="full(w)" :width="width" :height="26" />
        <template v-if="stroke?.week === w.id">
          <span v-for="(s, i) in spansOf(hours)" :key="i" class="stroke" :style="placeIn(whole, s)" />
        </template>
      </div>
      <div class="acts">
        <span v-if="stroke?.week === w.id" class="soft"
          >{{ hoursInWords(hours) }}: {{ site.duties.get(hand.duty)?.name }}, for
          {{ count(followers(w.id).length, 'channel') }}</span
        >
        <template v-else>
          <TypedHours
            v-if="!reading"
            label="Type hours"
            act="Paint"
            :title="`${site.duties.get(hand.duty)?.name}, for ${count(followers(w.id).length, 'channel')}`"
            :keep="(typed) => site.change([{ paint: { weeks: [w.id], hours: typed.blocks, duty: hand.duty } }])"
          />
          <button
            type="button"
            class="plain-button link"
            :disabled="!hand.selection.length"
            @click="site.change([{ followWeek: { channels: hand.selection, week: w.id } }])"
          >
            Let
            {{ hand.selection.length ? count(hand.selection.length, 'selected channel') : 'selected channels' }} follow
          </button>
          <button type="button" class="plain-button link" @click="add({ ...w, name: `${w.name} (copy)` })">
            Duplicate
          </button>
          <button
            v-if="followers(w.id).length"
            type="button"
            class="plain-button link"
            data-test="depart-all"
            @click="site.change([{ departWeek: { channels: followers(w.id).map((c) => c.id) } }])"
          >
            Unlink all channels
          </button>
          <a :href="`/api/plans/${site.planId}/weeks/${encodeURIComponent(w.id)}/calendar`" download>As a calendar</a>
          <button type="button" class="plain-button link short" data-test="remove-week" @click="remove(w)">
            Remove
          </button>
        </template>
      </div>
    </article>
    <button
      type="button"
      class="act quiet"
      data-test="new-week"
      @click="add({ name: `Week ${weeks.length + 1}`, otherwise: hand.duty })"
    >
      New week: {{ site.duties.get(hand.duty)?.name }} throughout
    </button>
    <CalendarImport v-if="!reading" />
    <p v-if="ownWeeks.length" class="soft">
      {{ ownWeeks.map((c) => c.name).join(', ') }}
      {{ ownWeeks.length === 1 ? 'has a week of its' : 'have weeks of their' }} own.
    </p>
  </div>
</template>

<style scoped>
.head,
.entry {
  display: grid;
  grid-template-columns: 250px minmax(0, 1fr);
  gap: 2px 18px;
}

.entry {
  padding: 8px 0 6px;
  border-top: 1px solid var(--rule);
}

.days {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  font-weight: 700;
}

.name {
  width: 100%;
  font-weight: 600;
  background: none;
  border: 1px solid transparent;
  border-radius: 5px;
  padding: 1px 5px;
  margin-left: -6px;
}

.name:hover,
.name:focus {
  background: var(--sheet);
  border-color: var(--rule);
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
  font-size: 12.5px;
}

.act {
  margin-top: 10px;
}

@media (max-width: 760px) {
  .head,
  .entry {
    grid-template-columns: minmax(0, 1fr);
  }

  .acts {
    grid-column: 1;
    flex-wrap: wrap;
  }
}

@media (max-width: 500px) {
  .acts,
  .act {
    display: none;
  }
}
</style>
