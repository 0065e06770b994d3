<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import type { SiteLine } from '../api/types'
import SiteGlance from './SiteGlance.vue'

/** The weeks of a few sites, side by side in the room that their list leaves. */
const { sites } = defineProps<{ sites: SiteLine[] }>()
const box = useTemplateRef('box')
const { width, height } = useElementSize(box)
const across = computed(() => Math.max(1, Math.min(sites.length, Math.floor(width.value / 400))))
const down = computed(() =>
  Math.max(0, Math.min(Math.ceil(sites.length / across.value), Math.floor(height.value / 230))),
)
const shown = computed(() => (width.value < 400 ? [] : sites.slice(0, across.value * down.value)))
const each = computed(() => (height.value - 16 * (down.value - 1)) / Math.max(1, down.value))
</script>

<template>
  <div
    ref="box"
    class="sites-glance"
    data-test="sites-glance"
    :style="{ gridTemplate: `repeat(${down}, minmax(0, 1fr)) / repeat(${across}, minmax(0, 1fr))` }"
  >
    <SiteGlance v-for="s in shown" :key="s.id" :site="s" :height="each" />
  </div>
</template>

<style scoped>
.sites-glance {
  display: grid;
  flex: 1 1 0;
  gap: 16px;
  min-height: 0;
  overflow: hidden;
  contain: size;
}

@media print {
  .sites-glance {
    display: none;
  }
}
</style>
