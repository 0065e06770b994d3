<script setup lang="ts">
import { computed, type Component } from 'vue'
import { useRoute } from 'vue-router'

import CausesPart from './causes/CausesPart.vue'
import MessagesPart from './messages/MessagesPart.vue'
import OffsitePart from './offsite/OffsitePart.vue'
import StillsPart from './movable/StillsPart.vue'
import { pages } from '../shell/pages'
import PartNav from '../shell/PartNav.vue'
import NoticesPart from './notices/NoticesPart.vue'

/** What counts as an event, and what it causes. */
const route = useRoute()
const shown: Record<string, Component> = {
  notices: NoticesPart,
  causes: CausesPart,
  messages: MessagesPart,
  stills: StillsPart,
  offsite: OffsitePart,
}
const parts = pages.find((p) => p.name === 'triggers')!.parts!.map((p) => ({ id: p.part ?? 'notices', name: p.title }))
const part = computed(() => {
  const asked = String(route.params.part || 'notices')
  return asked in shown ? asked : 'notices'
})
</script>

<template>
  <div class="page">
    <PartNav page="triggers" label="Triggers" :parts="parts" :here="part" />
    <component :is="shown[part]" />
  </div>
</template>

<style scoped>
.page {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  height: 100%;
}
</style>
