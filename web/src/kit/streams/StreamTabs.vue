<script setup lang="ts">
import { computed } from 'vue'

import { choices } from '../../api/format'
import type { StreamName } from '../../api/types'
import { capital } from '../../ui/plain'
import TabBar from '../../ui/TabBar.vue'

/** The streams of a camera, of which one is shown below. */
const which = defineModel<StreamName>({ required: true })
const tabs = computed(() =>
  choices.streams.value.map(([id, name]) => [id, capital(name.replace(' stream', ''))] as const),
)
</script>

<template>
  <TabBar v-model="which" :tabs="tabs" />
</template>
