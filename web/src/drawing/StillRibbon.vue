<script setup lang="ts">
import { onMounted, useTemplateRef, watchEffect } from 'vue'

import type { Duty, Ribbon } from '../api/types'
import { drawRibbon, prepare } from './drawRibbon'
import { palette } from '../theme/palette'
import { WEEK } from '../time/week'

/** A ribbon of the whole week that is only looked at. */
const props = defineProps<{ ribbon: Ribbon; duties: Map<string, Duty>; full: number; width: number; height: number }>()
const canvas = useTemplateRef('canvas')
onMounted(() => {
  watchEffect(
    () => {
      if (!canvas.value || props.width < 1) return
      drawRibbon(
        prepare(canvas.value, props.width, props.height, palette.value, { from: 0, to: WEEK }),
        props.ribbon,
        props.full,
        props.duties,
      )
    },
    { flush: 'post' },
  )
})
</script>

<template>
  <canvas ref="canvas" class="across" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
</template>

<style scoped>
canvas {
  display: block;
}
</style>
