<script setup lang="ts">
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import type { Channel } from '../api/types'
import { useSite } from '../site/useSite'
import { drawRail, drawRibbon, prepare } from './drawRibbon'
import { palette } from './palette'
import { ROW } from './rows'
import { WEEK } from './time'

const props = defineProps<{ channel: Channel; width: number }>()
const site = useSite()
const canvas = useTemplateRef('canvas')
const echoes = computed(() => site.echoes.filter((e) => e.channels.includes(props.channel.id)))
const height = ROW - 3

onMounted(() => {
  watchEffect(
    () => {
      if (!canvas.value || props.width < 1) return
      const c = prepare(canvas.value, props.width, height, palette.value, { from: 0, to: WEEK })
      const ribbon = site.ribbons.get(props.channel.id)
      if (!ribbon || props.channel.noCamera) return
      drawRibbon(c, ribbon, site.figures.get(props.channel.id)?.fullKbps ?? 1, site.duties)
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
