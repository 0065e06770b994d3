<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'

import { ask } from '../api/ask'
import { api } from '../api/client'
import type { Hours } from '../api/types'
import { spansOf } from '../time/echo'
import { clock, DAY, dayNames, weekdays, type Span } from '../time/week'

/**
 * Hours of the week, a row for each day, painted by dragging over days and times: what the first hour is, the stroke
 * takes away or adds. By keyboard: arrows move, with Shift they extend, Space paints.
 */
const props = defineProps<{ blocks: Hours[] | undefined; deaf: Span[]; name: string }>()
const emit = defineEmits<{ change: [blocks: Hours[] | undefined]; problem: [text: string] }>()
const SLOT = 30
const slots = DAY / SLOT
const grid = useTemplateRef<HTMLElement>('grid')

/** Spans cut at midnight, a list for each day. */
const byDay = (spans: Span[]) =>
  weekdays.map((_, d) =>
    spans.flatMap((s) => {
      const from = Math.max(s.from, d * DAY) - d * DAY
      const to = Math.min(s.to > s.from ? s.to : s.to + 7 * DAY, (d + 1) * DAY) - d * DAY
      return to > from ? [{ from, to }] : []
    }),
  )
const on = computed(() => byDay(props.blocks?.length ? spansOf(props.blocks) : [{ from: 0, to: 7 * DAY }]))
const deafs = computed(() => byDay(props.deaf))
const isOn = (c: Cell) => on.value[c.day]!.some((s) => s.from <= c.slot * SLOT && s.to > c.slot * SLOT)

interface Cell {
  day: number
  slot: number
}
const at = ref<Cell>({ day: 0, slot: 0 })
const from = ref<Cell>() // where the stroke began
const focused = ref(false)
const stroke = computed(() => {
  const f = from.value ?? at.value
  const [d0, d1] = [Math.min(f.day, at.value.day), Math.max(f.day, at.value.day)]
  const [s0, s1] = [Math.min(f.slot, at.value.slot), Math.max(f.slot, at.value.slot)]
  return { d0, d1, from: s0 * SLOT, to: (s1 + 1) * SLOT }
})
const said = computed(() => {
  const { d0, d1, from: f, to } = stroke.value
  const days = d0 === d1 ? dayNames[d0] : `${dayNames[d0]} to ${dayNames[d1]}`
  return `${days}, ${clock(f)} to ${clock(to)}: ${isOn(from.value ?? at.value) ? 'on' : 'off'}`
})

function cellAt(event: PointerEvent): Cell {
  const box = grid.value!.getBoundingClientRect()
  const within = (v: number, most: number) => Math.max(0, Math.min(most - 1, Math.floor(v * most)))
  return {
    day: within((event.clientY - box.top) / box.height, 7),
    slot: within((event.clientX - box.left) / box.width, slots),
  }
}
const dragging = ref(false)
function press(event: PointerEvent) {
  if (event.button !== 0) return
  grid.value!.setPointerCapture(event.pointerId)
  at.value = from.value = cellAt(event)
  dragging.value = true
}
function move(event: PointerEvent) {
  if (dragging.value) at.value = cellAt(event)
}
function release() {
  if (dragging.value) void paint()
  dragging.value = false
}

async function paint() {
  const { d0, d1, from: f, to } = stroke.value
  const hours: Hours[] = [{ days: weekdays.slice(d0, d1 + 1), from: clock(f), to: clock(to) }]
  const isAdding = !isOn(from.value ?? at.value)
  from.value = undefined
  const told = await ask(
    api.POST('/api/hours', { body: { blocks: props.blocks ?? [], stroke: { hours, on: isAdding } } }),
  )
  if (told.data) emit('change', told.data.always ? undefined : told.data.blocks)
  else emit('problem', told.status === 422 ? 'Then no hour would be left. Switch it off instead.' : told.problem)
}

function key(event: KeyboardEvent) {
  const by = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key]
  if (by) {
    from.value = event.shiftKey ? (from.value ?? at.value) : undefined
    at.value = {
      day: Math.max(0, Math.min(6, at.value.day + by[0]!)),
      slot: Math.max(0, Math.min(slots - 1, at.value.slot + by[1]!)),
    }
  } else if (event.key === ' ') void paint()
  else if (event.key === 'Escape' && (from.value || dragging.value)) {
    from.value = undefined
    dragging.value = false
  } else return
  event.preventDefault()
  event.stopPropagation()
}
const place = (s: Span) => ({ left: `${(100 * s.from) / DAY}%`, width: `${(100 * (s.to - s.from)) / DAY}%` })
</script>

<template>
  <div class="strip" :data-test="`strip-${name}`">
    <div class="days soft" aria-hidden="true">
      <span v-for="d in dayNames" :key="d">{{ d.slice(0, 2) }}</span>
    </div>
    <div
      ref="grid"
      class="grid"
      tabindex="0"
      role="application"
      :aria-label="`Hours of ${name}. ${said}. Arrows move, Shift extends, Space paints.`"
      @pointerdown="press"
      @pointermove="move"
      @pointerup="release"
      @pointercancel="dragging = false"
      @focus="focused = true"
      @blur="focused = false"
      @keydown="key"
      @keypress.space.prevent
    >
      <div v-for="(spans, day) in on" :key="day" class="day">
        <i v-for="s in spans" :key="s.from" class="on" :style="place(s)" />
        <i v-for="s in deafs[day]" :key="`deaf ${s.from}`" class="deaf" :style="place(s)" />
        <i
          v-if="(dragging || focused) && day >= stroke.d0 && day <= stroke.d1"
          class="stroke"
          :style="place({ from: stroke.from, to: stroke.to })"
        />
      </div>
    </div>
    <div class="scale soft" aria-hidden="true">
      <span v-for="h in [0, 6, 12, 18, 24]" :key="h" data-hour>{{ h }}</span>
    </div>
    <span class="visually-hidden" aria-live="polite">{{ focused ? said : '' }}</span>
  </div>
</template>

<style scoped>
.strip {
  user-select: none;
  display: grid;
  grid-template-columns: 22px minmax(0, 1fr);
  font-size: var(--axis);
  margin: 2px 0 4px;
}

.days {
  display: grid;
}

.grid {
  display: grid;
  height: 119px;
  border: 1px solid var(--rule);
  touch-action: none;
  cursor: crosshair;
  background: linear-gradient(90deg, var(--rule) 1px, transparent 1px) 0 0 / 25% 100%;
}

.day {
  position: relative;
  border-bottom: 1px solid var(--rule);
}

.day i {
  position: absolute;
  inset: 2px auto 2px 0;
  pointer-events: none;
}

.on {
  background: repeating-linear-gradient(
    90deg,
    color-mix(in srgb, var(--motion) 75%, transparent) 0 1.5px,
    color-mix(in srgb, var(--motion) 22%, transparent) 1.5px 4px
  );
  border-top: 1.5px solid var(--motion);
}

.day .deaf {
  inset-block: 0;
  border: 1.5px solid var(--short);
  border-radius: 4px;
}

.day .stroke {
  inset-block: 0;
  outline: 2px solid var(--base);
  background: color-mix(in srgb, var(--base) 25%, transparent);
}

.scale {
  grid-column: 2;
  display: flex;
  justify-content: space-between;
}
</style>
