<script setup lang="ts">
import { computed } from 'vue'

import DiskList from '../../disk/DiskList.vue'
import { useHand } from '../../hand/useHand'
import { useSite } from '../../site/useSite'
import { gigabytes } from '../../ui/figures'

/** Where the disk goes, while no channel is selected. */
const site = useSite()
const hand = useHand()
const isEmpty = computed(() => !(site.plan?.channels ?? []).some((c) => !c.noCamera))
</script>

<template>
  <section v-if="!isEmpty" aria-label="Where the disk goes" data-test="where-disk">
    <h2>Where the disk goes</h2>
    <p class="soft">
      {{ gigabytes(site.verdict?.gigabytesPerDay ?? 0) }} a day. Select channels to see and change what is decided about
      them; a group's name selects its channels.
    </p>
    <DiskList bare :most="12" :pick="(ids) => hand.show(ids)" />
  </section>
  <p v-else class="soft">There is no camera yet; add them on the Kit page.</p>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
}
</style>
