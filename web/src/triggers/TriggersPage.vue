<script setup lang="ts">
import PartedPage from '../shell/PartedPage.vue'
import CausesPart from './causes/CausesPart.vue'
import MessagesPart from './messages/MessagesPart.vue'
import StillsPart from './movable/StillsPart.vue'
import NoticesPart from './notices/NoticesPart.vue'
import OffsitePart from './offsite/OffsitePart.vue'

/** What counts as an event, and what it causes. */
const shown = {
  notices: NoticesPart,
  causes: CausesPart,
  messages: MessagesPart,
  stills: StillsPart,
  offsite: OffsitePart,
}
</script>

<template>
  <PartedPage page="triggers" :shown="shown" />
</template>
