<script setup lang="ts">
import { computed } from 'vue'

import { useHand } from '../../hand/useHand'
import { useSite } from '../../site/useSite'
import { later } from '../../ui/later'
import WhereDisk from './WhereDisk.vue'

/** What is decided about the channels selected; where the disk goes while none is. */
const ChannelSettings = later(async () => (await import('../reserve')).ChannelSettings)
const site = useSite()
const hand = useHand()
const some = computed(() => hand.selection.some((id) => !site.channels.get(id)?.noCamera))
</script>

<template>
  <ChannelSettings v-if="some" />
  <WhereDisk v-else />
</template>
