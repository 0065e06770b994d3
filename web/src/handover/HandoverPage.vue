<script setup lang="ts">
import PartedPage from '../shell/PartedPage.vue'
import LinksPart from './links/LinksPart.vue'
import PapersPart from './papers/PapersPart.vue'
import SheetsPart from './sheets/SheetsPart.vue'
import WalkPart from './walk/WalkPart.vue'

/** What is carried to the site: sheets that fitters work from, papers that are handed over, and what is walked. */
const shown = { sheets: SheetsPart, papers: PapersPart, walk: WalkPart, links: LinksPart }
</script>

<template>
  <PartedPage page="handover" :shown="shown" />
</template>
