<script setup lang="ts">
import { computed, type Component } from 'vue'
import { useRoute } from 'vue-router'

import PlanGlance from '../glance/PlanGlance.vue'
import NoPart from '../shell/NoPart.vue'
import PartNav from '../shell/PartNav.vue'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import ActivitiesPart from './activities/ActivitiesPart.vue'
import ChannelsPart from './ChannelsPart.vue'
import FromSitePart from './from/FromSitePart.vue'
import KindsPart from './kinds/KindsPart.vue'
import RecordersPart from './recorders/RecordersPart.vue'
import SitePart from './SitePart.vue'

/** What stands on the site: channels, recorders and drives, kinds of cameras, what happens in front of them. */
const site = useSite()
const route = useRoute()
const parts: Record<string, Component> = {
  channels: ChannelsPart,
  recorders: RecordersPart,
  kinds: KindsPart,
  activities: ActivitiesPart,
  site: SitePart,
  from: FromSitePart,
}
const part = computed(() => String(route.params.part || 'channels'))
const tabs = computed(() => {
  const p = site.plan!
  const drives = p.recorders
    .flatMap((r) => r.pools)
    .reduce((n, pool) => n + (pool.hotSpares ?? 0) + pool.drives.reduce((k, g) => k + g.count, 0), 0)
  const cameras = p.channels.filter((c) => !c.noCamera).length
  return [
    { id: 'channels', name: `${count(cameras, 'camera')} on ${count(p.channels.length, 'channel')}` },
    { id: 'recorders', name: `${count(p.recorders.length, 'recorder')}, ${count(drives, 'drive')}` },
    { id: 'kinds', name: count(p.kinds?.length ?? 0, 'camera kind') },
    { id: 'activities', name: count(p.activities?.length ?? 0, 'activity', 'activities') },
    { id: 'site', name: 'Site' },
    { id: 'from', name: 'From another site' },
  ]
})
</script>

<template>
  <div class="kit">
    <h1 class="visually-hidden">Kit of {{ site.plan?.site.name }}</h1>
    <PartNav page="kit" label="Kit" :parts="tabs" :here="part" />
    <component :is="parts[part]" v-if="part in parts" class="part" />
    <NoPart v-else :part="part" page="Kit" />
    <PlanGlance v-if="part === 'recorders' || part === 'from'" />
  </div>
</template>

<style scoped>
.kit {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.part {
  flex: 1 1 0;
  min-height: 0;
}

.part:has(+ .glance) {
  flex: 0 1 auto;
}
</style>
