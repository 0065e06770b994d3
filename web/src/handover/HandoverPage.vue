<script setup lang="ts">
import PartedPage from '../shell/PartedPage.vue'
import DevicesPart from './devices/DevicesPart.vue'
import LinksPart from './links/LinksPart.vue'
import PapersPart from './papers/PapersPart.vue'
import SheetsPart from './sheets/SheetsPart.vue'
import WalkPart from './walk/WalkPart.vue'

/** What is carried to the site: sheets, papers, what is walked; and what recorders and cameras have. */
const shown = { sheets: SheetsPart, papers: PapersPart, walk: WalkPart, devices: DevicesPart, links: LinksPart }
</script>

<template>
  <PartedPage page="handover" :shown="shown" />
</template>
