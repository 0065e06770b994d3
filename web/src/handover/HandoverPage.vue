<script setup lang="ts">
import { computed, type Component } from 'vue'
import { useRoute } from 'vue-router'

import { pages } from '../shell/pages'
import PartNav from '../shell/PartNav.vue'
import PapersPart from './papers/PapersPart.vue'
import SheetsPart from './sheets/SheetsPart.vue'

/** What is carried to the site: the sheets that fitters work from, and the papers that are handed over. */
const route = useRoute()
const shown: Record<string, Component> = { sheets: SheetsPart, papers: PapersPart }
const parts = pages.find((p) => p.name === 'handover')!.parts!.map((p) => ({ id: p.part ?? 'sheets', name: p.title }))
const part = computed(() => {
  const asked = String(route.params.part || 'sheets')
  return asked in shown ? asked : 'sheets'
})
</script>

<template>
  <div class="page">
    <PartNav page="handover" label="Handover" :parts="parts" :here="part" />
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
