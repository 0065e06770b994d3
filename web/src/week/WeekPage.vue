<script setup lang="ts">
import { useElementSize, useEventListener, useStorage, useWindowSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import DutyShelf from '../duties/DutyShelf.vue'
import { useHand } from '../hand/useHand'
import { useEntered } from '../site/useEntered'
import { useSite } from '../site/useSite'
import { ticksOf } from '../time/ticks'
import { WEEK } from '../time/week'
import { later, nothing } from '../ui/later'
import { useOnce } from '../ui/useOnce'
import { useCopy } from './copying/useCopy'
import { useWeekDrag } from './copying/useWeekDrag'
import { useKeyboard } from './painting/useKeyboard'
import { usePainting } from './painting/usePainting'
import FoldingPane from './panes/FoldingPane.vue'
import ArrangeRows from './rows/ArrangeRows.vue'
import ChannelRow from './rows/ChannelRow.vue'
import GroupRow from './rows/GroupRow.vue'
import { daysOfPools, figureOf, plain, type Arrangement } from './rows/rows'
import { useRowMenu } from './rows/useRowMenu'
import { useRows } from './rows/useRows'
import { useShortcuts } from './useShortcuts'
import DayHeader from './view/DayHeader.vue'
import TideChart from './view/TideChart.vue'
import { useZoom } from './view/useZoom'

const site = useSite()
const entered = useEntered()
const hand = useHand()
const scroller = useTemplateRef('scroller')
const axis = useTemplateRef('axis')
const { width } = useElementSize(axis)
const { height: windowHeight } = useWindowSize()

const how = useStorage<Arrangement>('wakefield-rows', plain, undefined, { mergeDefaults: true })
const { rows, order, rowHeight, virtual, channelAt, reveal } = useRows(scroller, how)
const several = computed(() => (site.plan?.recorders.length ?? 0) > 1)
/** What each pool keeps, which is not said again by each of its channels. */
const kept = computed(() => daysOfPools(site.plan?.channels ?? [], entered.figuresOf))
const written = computed(() => site.verdict?.gigabytesPerDay ?? 0)

const painting = usePainting({ element: axis, order, channelAt })
const keyboard = useKeyboard(order, painting.paint, reveal)
const copy = useCopy()
const drag = useWeekDrag(copy, order, channelAt)
const zoom = useZoom(painting.minuteAt)
const Address = later(async () => (await import('./reserve')).Address, nothing)
const RowMenu = later(async () => (await import('./reserve')).RowMenu)
const { menu, openMenu, menuAt } = useRowMenu(scroller, () => keyboard.reached().channels[0])
const menued = useOnce(() => !!menu.value)
useShortcuts(keyboard.reached, zoom)
useEventListener(scroller, 'wheel', zoom.wheel, { passive: false })

/** Lines of time behind the ribbons. */
const lines = computed(() => {
  const { step } = ticksOf(hand.view, width.value, hand.isWhole ? 130 : 38)
  const length = hand.view.to - hand.view.from
  return {
    '--step': `${(step / length) * width.value}px`,
    '--shift': `${-((hand.view.from % step) / length) * width.value}px`,
  }
})

/** A double click on a name paints the channel's whole week, on its ribbon the day. */
function double(event: MouseEvent) {
  const channel = channelAt(event.clientY)
  if (!channel || (event.target as HTMLElement).closest('button')) return
  if (event.clientX >= axis.value!.getBoundingClientRect().left)
    painting.double(event) // the pointer was captured, so its target tells nothing
  else {
    hand.show([channel])
    void painting.paint([channel], { from: 0, to: WEEK })
  }
}

function onTime(event: PointerEvent, handler: (e: PointerEvent) => void) {
  if ((event.target as HTMLElement).closest('.time') || hand.stroke) handler(event)
}

function select(id: string, event: MouseEvent) {
  hand.select(id, event.shiftKey ? 'through' : event.ctrlKey || event.metaKey ? 'beside' : 'alone', order.value)
}
</script>

<template>
  <div class="week">
    <h1 class="visually-hidden">The week of {{ site.plan?.site.name }}</h1>
    <DutyShelf class="shelf" :paint="(channels, typed) => painting.paintHours(channels, typed.blocks, typed.spans)" />
    <div class="table">
      <div class="header">
        <ArrangeRows v-model="how" :shown="order.length" :all="site.plan?.channels.length ?? 0" />
        <div ref="axis"><DayHeader :width="width" @paint="painting.paint" /></div>
      </div>
      <div
        ref="scroller"
        class="rows"
        role="grid"
        aria-label="Channels and their weeks"
        :aria-rowcount="rows.length"
        aria-multiselectable="true"
        tabindex="0"
        :class="{ edge: painting.edge.value }"
        @dblclick="double"
        @contextmenu="openMenu"
        @pointerdown="(onTime($event, painting.down), drag.down($event))"
        @pointermove="painting.move"
        @pointerup="painting.up"
        @pointercancel="painting.abandon"
        @pointerleave="painting.leave"
        @keydown="zoom.key($event) || keyboard.key($event)"
        @blur="keyboard.leave"
      >
        <div class="all" role="rowgroup" :style="{ height: `${virtual.getTotalSize()}px`, ...lines }">
          <div
            v-for="item in virtual.getVirtualItems()"
            :key="item.index"
            class="place"
            role="presentation"
            :style="{ transform: `translateY(${item.start}px)` }"
          >
            <template v-for="row in [rows[item.index]!]" :key="row.kind">
              <GroupRow v-if="row.kind === 'group'" :group="row" />
              <ChannelRow
                v-else
                :channel="row.channel"
                :width="width"
                :height="rowHeight"
                :shows="figureOf(how.sort, entered.figuresOf(row.channel.id), written, kept.get(row.channel.pool))"
                :recorder="several ? site.plan!.recorders.findIndex((r) => r.id === row.channel.recorder) + 1 : 0"
                :selected="hand.selection.includes(row.channel.id)"
                :target="drag.over.value.includes(row.channel.id)"
                :cursor="keyboard.on(row.channel.id)"
                @select="select(row.channel.id, $event)"
                @menu="(e) => menuAt(row.channel.id, e)"
              />
            </template>
          </div>
        </div>
      </div>
      <p v-if="!order.length" class="none soft">
        No channel is shown: {{ how.search ? `none is called “${how.search}”` : 'none has findings' }}.
        <button type="button" class="plain-button link" @click="how = plain">Show all</button>
      </p>
      <TideChart
        :width="width"
        :height="windowHeight < 450 ? 34 : windowHeight < 560 ? 46 : 88"
        :paint="painting.paint"
      />
    </div>
    <FoldingPane />
    <Address />
    <RowMenu v-if="menued" v-model="menu" @paint="painting.paint" />
  </div>
</template>

<style scoped>
.week {
  --channel-width: 226px;

  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr) 264px;
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

.none {
  position: absolute;
  margin: 50px 20px;
}

.rows.edge {
  cursor: col-resize;
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
}

.all::before {
  content: '';
  position: absolute;
  inset: 0 0 0 var(--channel-width);
  background: linear-gradient(to right, var(--rule) 0 1px, transparent 1px) var(--shift) 0 / var(--step) 100% repeat-x;
}

.place {
  position: absolute;
  inset: 0 0 auto;
}

/* A narrow window, or one that is magnified, is still a desk: the pane folds, the shelf scrolls, nothing goes. */
@media (min-width: 501px) and (max-width: 1000px) {
  .week {
    --channel-width: 168px;

    position: relative;
    grid-template-columns: minmax(0, 1fr);
  }
}

/* On paper names are written out. */
@media print {
  .week {
    --channel-width: 250px;
  }
}

/* On a phone hours are typed, and chosen from a list: no shelf to paint from. */
@media (max-width: 500px) {
  .week {
    --channel-width: 150px;

    position: relative;
    grid-template-columns: minmax(0, 1fr);
  }

  .shelf {
    display: none;
  }
}
</style>
