<script setup lang="ts">
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import { useSite, type Echo } from '../site/useSite'
import { drawRail, drawRibbon, prepare } from './drawRibbon'
import { palette } from './palette'
import { ROW } from './rows'
import { WEEK } from './time'

const props = defineProps<{ id: string; empty?: boolean; width: number }>()
const site = useSite()
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
      const c = prepare(canvas.value, props.width, height, palette.value, { from: 0, to: WEEK })
      const ribbon = site.ribbons.get(props.id)
      if (!ribbon || props.empty) return
      drawRibbon(c, ribbon, full.value, site.duties)
      for (const echo of echoes.value) {
        for (const span of echo.spans) {
          c.context.clearRect((span.from / WEEK) * c.width, c.height - 5, ((span.to - span.from) / WEEK) * c.width, 5)
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
