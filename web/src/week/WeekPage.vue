<script setup lang="ts">
import { useElementSize, useEventListener } from '@vueuse/core'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, useTemplateRef } from 'vue'

import SidePane from '../panels/SidePane.vue'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import ChannelRow from './ChannelRow.vue'
import DayHeader from './DayHeader.vue'
import DutyShelf from './DutyShelf.vue'
import { HEADING, ROW, rowsOf } from './rows'
import SharedWeekQuestion from './SharedWeekQuestion.vue'
import TideChart from './TideChart.vue'
import { useHand } from './useHand'
import { useKeyboard } from './useKeyboard'
import { usePainting } from './usePainting'

const site = useSite()
const hand = useHand()
const scroller = useTemplateRef('scroller')
const axis = useTemplateRef('axis')
const { width } = useElementSize(axis)

const rows = computed(() => rowsOf(site.plan?.channels ?? []))
const order = computed(() => rows.value.flatMap((r) => (r.kind === 'channel' ? [r.channel.id] : [])))

const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: (i: number) => (rows.value[i]!.kind === 'group' ? HEADING : ROW),
    overscan: 6,
  })),
)

/** The channel at a height of the window, if a row is there. */
function channelAt(clientY: number): string | undefined {
  const box = scroller.value!.getBoundingClientRect()
  const y = clientY - box.top + scroller.value!.scrollTop
  const item = virtual.value.getVirtualItems().find((v) => y >= v.start && y < v.end)
  const row = item && rows.value[item.index]
  return row?.kind === 'channel' ? row.channel.id : undefined
}

const painting = usePainting({ element: axis, order, channelAt })
const keyboard = useKeyboard(order, painting.paint, (id) => {
  virtual.value.scrollToIndex(rows.value.findIndex((r) => r.kind === 'channel' && r.channel.id === id))
})

function onTime(event: PointerEvent, handler: (e: PointerEvent) => void) {
  if ((event.target as HTMLElement).closest('.time') || hand.stroke) handler(event)
}

function select(id: string, event: MouseEvent) {
  hand.select(id, event.shiftKey ? 'through' : event.ctrlKey || event.metaKey ? 'beside' : 'alone', order.value)
}

useEventListener(document, 'keydown', (event) => {
  const target = event.target as HTMLElement
  if (event.key === 'Escape' && !event.defaultPrevented && !target.closest('input, [role="dialog"]')) hand.day = undefined
  if (target.closest('input, textarea, [role="grid"], [role="dialog"]') || event.ctrlKey || event.metaKey || event.altKey) return
  const duty = site.plan?.duties[Number(event.key) - 1]
  if (duty) hand.picked = duty.id
})
</script>

<template>
  <div class="week">
    <h1 class="visually-hidden">The week of {{ site.plan?.site.name }}</h1>
    <DutyShelf class="shelf" />
    <div class="table">
      <div class="header">
        <span class="soft corner">{{ count(order.length, 'channel') }}, days kept</span>
        <div ref="axis"><DayHeader @paint="painting.paint" /></div>
      </div>
      <div
        ref="scroller" class="rows" role="grid" aria-label="Channels and their weeks" :aria-rowcount="rows.length" aria-multiselectable="true" tabindex="0"
        @pointerdown="onTime($event, painting.down)" @pointermove="painting.move" @pointerup="painting.up"
        @pointercancel="painting.abandon" @pointerleave="painting.leave" @keydown="keyboard.key" @blur="keyboard.leave"
      >
        <div class="all" role="rowgroup" :style="{ height: `${virtual.getTotalSize()}px`, '--parts': hand.day === undefined ? 7 : 24 }">
          <div v-for="item in virtual.getVirtualItems()" :key="item.index" class="place" role="presentation" :style="{ transform: `translateY(${item.start}px)` }">
            <template v-for="row in [rows[item.index]!]" :key="row.kind">
              <div v-if="row.kind === 'group'" class="group" role="row">
                <div role="rowheader">
                  <button type="button" class="plain-button soft" :title="`Select the channels of ${row.name}`" @click="hand.show(row.ids)">{{ row.name }}</button>
                </div>
              </div>
              <ChannelRow
                v-else :channel="row.channel" :width="width" :selected="hand.selection.includes(row.channel.id)"
                :stroke="hand.stroke?.channels.includes(row.channel.id) ? hand.spans : []" :cursor="keyboard.on(row.channel.id)"
                @select="select(row.channel.id, $event)"
              />
            </template>
          </div>
        </div>
      </div>
      <TideChart :width="width" :height="88" />
    </div>
    <SidePane />
    <SharedWeekQuestion />
  </div>
</template>

<style scoped>
.week {
  --channel-width: 226px;

  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 236px;
  height: 100%;
}

.shelf {
  grid-column: 1 / -1;
  border-bottom: 1px solid var(--rule);
}

.table {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
}

.header {
  display: grid;
  grid-template-columns: var(--channel-width) minmax(0, 1fr);
  border-bottom: 1px solid var(--rule);
}

.corner {
  align-self: end;
  padding: 0 10px 2px 14px;
  font-size: 12px;
}

.rows {
  position: relative;
  overflow: auto;
  scrollbar-width: none;
}

.rows:focus-visible {
  outline-offset: -2px;
}

.all {
  position: relative;
  background: repeating-linear-gradient(to right, var(--rule) 0 1px, transparent 1px calc((100% - var(--channel-width)) / var(--parts))) var(--channel-width) 0 no-repeat;
}

.place {
  position: absolute;
  inset: 0 0 auto;
}

.group {
  height: 20px;
  padding: 3px 0 0 12px;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
  line-height: 16px;
}

/* A phone is for reading: no shelf to paint from, no pane to change things in. */
@media (max-width: 760px) {
  .week {
    --channel-width: 150px;

    grid-template-columns: minmax(0, 1fr);
  }

  .shelf,
  .week > :deep(.pane) {
    display: none;
  }
}
</style>
