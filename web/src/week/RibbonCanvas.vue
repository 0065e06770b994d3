<script setup lang="ts">
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import { useSite, type Echo } from '../site/useSite'
import { drawRail, drawRibbon, prepare, x } from './drawRibbon'
import { palette } from './palette'
import { ROW } from './rows'
import { useHand } from './useHand'

const props = defineProps<{ id: string; empty?: boolean; width: number }>()
const site = useSite()
const hand = useHand()
const canvas = useTemplateRef('canvas')
const none: Echo[] = []
const echoes = computed(() => {
  const mine = site.echoes.filter((e) => e.channels.includes(props.id))
  return mine.length ? mine : none // an empty list that stays the same draws nothing again
})
const full = computed(() => site.figures.get(props.id)?.fullKbps ?? 1)
const height = ROW - 3

onMounted(() => {
  watchEffect(
    () => {
      if (!canvas.value || props.width < 1) return
      const c = prepare(canvas.value, props.width, height, palette.value, hand.view)
      const ribbon = site.ribbons.get(props.id)
      if (!ribbon || props.empty) return
      drawRibbon(c, ribbon, full.value, site.duties)
      for (const echo of echoes.value) {
        for (const span of echo.spans) {
          c.context.clearRect(x(c, span.from), c.height - 5, x(c, span.to) - x(c, span.from), 5)
          drawRail(c, site.duties.get(echo.duty), span)
        }
      }
    },
    { flush: 'post' },
  )
})
</script>

<template>
  <canvas ref="canvas" class="ribbon" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
</template>

<style scoped>
.ribbon {
  display: block;
}
</style>
