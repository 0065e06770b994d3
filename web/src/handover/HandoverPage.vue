<script setup lang="ts">
import PartedPage from '../shell/PartedPage.vue'
import LinksPart from './links/LinksPart.vue'
import PapersPart from './papers/PapersPart.vue'
import SheetsPart from './sheets/SheetsPart.vue'

/** What is carried to the site: the sheets that fitters work from, and the papers that are handed over. */
const shown = { sheets: SheetsPart, papers: PapersPart, links: LinksPart }
</script>

<template>
  <PartedPage page="handover" :shown="shown" />
</template>
