<script setup lang="ts">
import PartedPage from '../shell/PartedPage.vue'
import AgainstPart from './AgainstPart.vue'
import MissedPart from './MissedPart.vue'
import RightPart from './RightPart.vue'

/** What really happened, against the plan. */
const shown = { against: AgainstPart, missed: MissedPart, right: RightPart }
</script>

<template>
  <PartedPage page="measured" :shown="shown" />
</template>
