<script setup lang="ts">
import { useHand } from '../../hand/useHand'
import { later } from '../../ui/later'
import TabBar from '../../ui/TabBar.vue'
import ChannelPanel from './ChannelPanel.vue'
import CloserLook from './CloserLook.vue'

const StrokeInHand = later(async () => (await import('../reserve')).StrokeInHand)
const HoursPanel = later(async () => (await import('../reserve')).HoursPanel)
const DiskPanel = later(async () => (await import('../reserve')).DiskPanel)
const EventsPanel = later(async () => (await import('../reserve')).EventsPanel)
const hand = useHand()
const panels = [
  ['channel', 'Channel'],
  ['hours', 'Hours'],
  ['events', 'Activity'],
  ['disk', 'Disk'],
] as const
</script>

<template>
  <aside class="pane" aria-label="What is decided here">
    <div class="main">
      <StrokeInHand v-if="hand.stroke || hand.act" />
      <div v-show="!hand.stroke && !hand.act">
        <!-- stays mounted, so that a stroke need not wait for it -->
        <TabBar v-model="hand.panel" :tabs="panels" />
        <ChannelPanel v-if="hand.panel === 'channel'" />
        <HoursPanel v-else-if="hand.panel === 'hours'" />
        <EventsPanel v-else-if="hand.panel === 'events'" />
        <DiskPanel v-else />
      </div>
    </div>
    <CloserLook />
  </aside>
</template>

<style scoped>
.pane {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  border-left: 1px solid var(--rule);
  background: var(--sheet);
  min-height: 0;
}

/* What goes on below fades, so that no line of text is cut through. */
.main {
  overflow: auto;
  padding: 8px 14px 18px;
  mask-image: linear-gradient(to top, transparent, #000 18px);
}
</style>
