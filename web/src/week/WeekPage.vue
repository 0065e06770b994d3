<script setup lang="ts">
import { useElementSize, useEventListener, useStorage, useWindowSize } from '@vueuse/core'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { computed, ref, useTemplateRef, watch } from 'vue'

import SidePane from './panes/SidePane.vue'
import { channelsOf } from '../findings/useFindings'
import { useSite } from '../site/useSite'
import ArrangeRows from './rows/ArrangeRows.vue'
import ChannelRow from './rows/ChannelRow.vue'
import DayHeader from './view/DayHeader.vue'
import DutyShelf from '../duties/DutyShelf.vue'
import RowMenu from './rows/RowMenu.vue'
import { figureOf, HEADING, plain, ROW, rowsOf, TALLEST, type Arrangement } from './rows/rows'
import SharedWeekQuestion from './painting/SharedWeekQuestion.vue'
import TideChart from './view/TideChart.vue'
import { ticksOf } from '../time/ticks'
import { useCopy } from './copying/useCopy'
import { WEEK } from '../time/week'
import { useHand } from '../hand/useHand'
import { useKeyboard } from './painting/useKeyboard'
import { usePainting } from './painting/usePainting'
import { useWeekDrag } from './copying/useWeekDrag'
import { useZoom } from './view/useZoom'

const site = useSite()
const hand = useHand()
const scroller = useTemplateRef('scroller')
const axis = useTemplateRef('axis')
const { width } = useElementSize(axis)
const { height: windowHeight } = useWindowSize()

const how = useStorage<Arrangement>('wakefield-rows', plain, undefined, { mergeDefaults: true })
const found = computed(() => new Set(site.findings.filter((f) => !f.accepted).flatMap(channelsOf)))
const rows = computed(() => rowsOf(site.plan?.channels ?? [], how.value, (id) => site.figures.get(id), found.value, site.plan?.recorders ?? []))
const several = computed(() => (site.plan?.recorders.length ?? 0) > 1)
const written = computed(() => site.verdict?.gigabytesPerDay ?? 0)
const order = computed(() => rows.value.flatMap((r) => (r.kind === 'channel' ? [r.channel.id] : [])))

/** Rows are as tall as lets all of them be seen at once, within limits. */
const { height: room } = useElementSize(scroller)
const rowHeight = computed(() => {
  const headings = rows.value.filter((r) => r.kind === 'group').length
  const each = Math.floor((room.value - headings * HEADING) / Math.max(1, rows.value.length - headings))
  return Math.max(ROW, Math.min(TALLEST, each))
})

const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: (i: number) => (rows.value[i]!.kind === 'group' ? HEADING : rowHeight.value),
    overscan: 6,
  })),
)

watch(rowHeight, () => virtual.value.measure())

/** The channel at a height of the window, if a row is there. */
function channelAt(clientY: number): string | undefined {
  const box = scroller.value!.getBoundingClientRect()
  const y = clientY - box.top + scroller.value!.scrollTop
  const item = virtual.value.getVirtualItems().find((v) => y >= v.start && y < v.end)
  const row = item && rows.value[item.index]
  return row?.kind === 'channel' ? row.channel.id : undefined
}

const pane = ref(false) // unfolded, where the window is narrow

const painting = usePainting({ element: axis, order, channelAt })
const keyboard = useKeyboard(order, painting.paint, (id) => {
  virtual.value.scrollToIndex(rows.value.findIndex((r) => r.kind === 'channel' && r.channel.id === id))
})

const copy = useCopy()
const drag = useWeekDrag(copy, order, channelAt)
const zoom = useZoom(painting.minuteAt)
const menu = ref<{ channel: string; x: number; y: number }>()
useEventListener(scroller, 'wheel', zoom.wheel, { passive: false })

/** Lines of time behind the ribbons. */
const lines = computed(() => {
  const { step } = ticksOf(hand.view, width.value, hand.isWhole ? 130 : 38)
  const length = hand.view.to - hand.view.from
  return { '--step': `${(step / length) * width.value}px`, '--shift': `${-((hand.view.from % step) / length) * width.value}px` }
})

function openMenu(event: MouseEvent) {
  // The key for menus opens it on the row of the cursor.
  const channel = (event.target as HTMLElement).closest<HTMLElement>('[data-channel]')?.dataset.channel ?? keyboard.reached().channels[0]
  if (!channel) return
  event.preventDefault()
  menuAt(channel, event)
}

/** Opens the menu where the pointer is, or beside the channel's name where there is no pointer. */
function menuAt(channel: string, event: MouseEvent) {
  const box = scroller.value!.querySelector(`[data-channel="${CSS.escape(channel)}"] .name`)?.getBoundingClientRect()
  const pointed = event.detail > 0 || event.button === 2
  menu.value = { channel, x: pointed ? event.clientX : (box?.left ?? 0), y: pointed ? event.clientY : (box?.bottom ?? 0) }
}

/** A double click on a name paints the channel's whole week, on its ribbon the day. */
function double(event: MouseEvent) {
  const channel = channelAt(event.clientY)
  if (!channel || (event.target as HTMLElement).closest('button')) return
  if (event.clientX >= axis.value!.getBoundingClientRect().left) painting.double(event) // the pointer was captured, so its target tells nothing
  else {
    hand.show([channel])
    void painting.paint([channel], { from: 0, to: WEEK })
  }
}

/** Ctrl+C and Ctrl+V, wherever nothing is being typed. */
useEventListener(document, 'keydown', (event) => {
  const target = event.target as HTMLElement
  if (!(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey || target.closest('input, textarea, [role="dialog"]')) return
  const { channels, days } = keyboard.reached()
  if (event.key === 'c' && channels.length && !getSelection()?.toString()) copy.copy({ channel: channels[0]!, ...(days.length && { day: days[0] }) })
  else if (event.key === 'v' && copy.copied) copy.doIt(copy.pasting(channels, days))
  else return
  event.preventDefault()
})

/** After copying, what Ctrl+V would do is counted for what is selected. */
watch(
  () => [copy.copied, hand.selection, hand.pointer] as const,
  ([copied]) => {
    if (!copied) return
    const { channels, days } = keyboard.reached()
    copy.consider(copy.pasting(channels, days))
  },
)

function onTime(event: PointerEvent, handler: (e: PointerEvent) => void) {
  if ((event.target as HTMLElement).closest('.time') || hand.stroke) handler(event)
}

function select(id: string, event: MouseEvent) {
  hand.select(id, event.shiftKey ? 'through' : event.ctrlKey || event.metaKey ? 'beside' : 'alone', order.value)
}

useEventListener(document, 'keydown', (event) => {
  const target = event.target as HTMLElement
  if (event.key === 'Escape' && !event.defaultPrevented && !target.closest('input, [role="dialog"]')) {
    if (copy.copied) {
      copy.copied = undefined
      copy.consider(undefined)
    } else if (hand.brush) hand.brush = undefined
    else hand.day = undefined
  }
  if (target.closest('input, textarea, [role="grid"], [role="dialog"]') || event.ctrlKey || event.metaKey || event.altKey) return
  if (zoom.key(event)) return
  const duty = site.plan?.duties[Number(event.key) - 1]
  if (duty) hand.picked = duty.id
})
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
        ref="scroller" class="rows" role="grid" aria-label="Channels and their weeks" :aria-rowcount="rows.length" aria-multiselectable="true" tabindex="0"
        :class="{ edge: painting.edge.value }" @dblclick="double" @contextmenu="openMenu"
        @pointerdown="onTime($event, painting.down), drag.down($event)" @pointermove="painting.move" @pointerup="painting.up"
        @pointercancel="painting.abandon" @pointerleave="painting.leave" @keydown="zoom.key($event) || keyboard.key($event)" @blur="keyboard.leave"
      >
        <div class="all" role="rowgroup" :style="{ height: `${virtual.getTotalSize()}px`, ...lines }">
          <div v-for="item in virtual.getVirtualItems()" :key="item.index" class="place" role="presentation" :style="{ transform: `translateY(${item.start}px)` }">
            <template v-for="row in [rows[item.index]!]" :key="row.kind">
              <div v-if="row.kind === 'group'" class="group" role="row">
                <div role="rowheader">
                  <button type="button" class="plain-button soft" :title="`Select the channels of ${row.name}`" @click="hand.show(row.ids)">{{ row.name }} <span class="says">{{ row.says }}</span></button>
                </div>
              </div>
              <ChannelRow
                v-else :channel="row.channel" :width="width" :height="rowHeight" :shows="figureOf(how.sort, site.figures.get(row.channel.id), written)" :recorder="several ? site.plan!.recorders.findIndex((r) => r.id === row.channel.recorder) + 1 : 0" :selected="hand.selection.includes(row.channel.id)" :target="drag.over.value.includes(row.channel.id)"
                :cursor="keyboard.on(row.channel.id)"
                @select="select(row.channel.id, $event)" @menu="(e) => menuAt(row.channel.id, e)"
              />
            </template>
          </div>
        </div>
      </div>
      <p v-if="!order.length" class="none soft">No channel is shown: {{ how.search ? `none is called “${how.search}”` : 'none has findings' }}. <button type="button" class="plain-button link" @click="how = plain">Show all</button></p>
      <TideChart :width="width" :height="windowHeight < 560 ? 46 : 88" :paint="painting.paint" />
    </div>
    <button type="button" class="fold" :aria-expanded="pane" data-test="fold" @click="pane = !pane">{{ pane ? 'Close details' : 'Details' }}</button>
    <SidePane :class="{ unfolded: pane }" />
    <SharedWeekQuestion />
    <RowMenu v-model="menu" @paint="painting.paint" />
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

.says {
  margin-left: 6px;
  font-size: 11px;
}

.group {
  white-space: nowrap;
  height: 20px;
  padding: 3px 0 0 12px;
  border-bottom: 1px solid var(--rule);
  font-size: 12px;
  line-height: 16px;
}

.fold {
  display: none;
}

/* A narrow window, or one that is magnified, is still a desk: the pane folds, the shelf scrolls, nothing goes. */
@media (min-width: 501px) and (max-width: 1000px) {
  .week {
    --channel-width: 168px;

    position: relative;
    grid-template-columns: minmax(0, 1fr);
  }

  .fold {
    position: absolute;
    z-index: 6;
    right: 8px;
    bottom: 6px;
    display: block;
    background: var(--base);
    color: var(--on-base);
    border: 0;
    border-radius: 5px;
    padding: 2px 10px;
    cursor: pointer;
  }

  .week > :deep(.pane) {
    display: none;
  }

  .week > :deep(.pane.unfolded) {
    position: absolute;
    z-index: 5;
    inset: 0 0 0 auto;
    display: grid;
    width: min(280px, 80%);
    padding-bottom: 30px;
    box-shadow: -6px 0 18px rgb(0 0 0 / 18%);
  }
}

/* A phone is for reading: no shelf to paint from, no pane to change things in. */
@media (max-width: 500px) {
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
