<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import type { ComparedRibbon } from '../api/types'
import { palette } from '../theme/palette'
import { change } from '../ui/figures'
import { drawTwo } from './drawTwo'

/** The week of a channel in two variants, one over the other. */
const { ribbon } = defineProps<{ ribbon: ComparedRibbon }>()
const box = useTemplateRef('box')
const canvas = useTemplateRef('canvas')
const { width } = useElementSize(box)
const H = 26
onMounted(() =>
  watchEffect(
    () => {
      if (canvas.value && width.value > 1)
        drawTwo(canvas.value, width.value, H, palette.value, ribbon.fullKbps, ribbon.first, ribbon.second)
    },
    { flush: 'post' },
  ),
)
const gb = computed(() => change(ribbon.gigabytesPerDayChange))
</script>

<template>
  <div class="row" :data-two="ribbon.id">
    <span class="name">{{ ribbon.name }}</span>
    <div ref="box">
      <canvas ref="canvas" class="across" :style="{ width: `${width}px`, height: `${H}px` }" aria-hidden="true" />
    </div>
    <span class="number">{{ gb ? `${gb} GB a day` : 'as much a day' }}</span>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr) 116px;
  gap: 8px;
  align-items: end;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
}

.name {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

canvas {
  display: block;
}

.number {
  text-align: right;
  font-size: var(--second);
}
</style>
