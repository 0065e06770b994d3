<script setup lang="ts">
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import type { Echo } from '../../site/useQueue'
import { useSite } from '../../site/useSite'
import { drawAround, drawGhost, drawRail, drawRibbon, prepare, RAIL, x } from '../../drawing/drawRibbon'
import { palette } from '../../theme/palette'
import { useHand } from '../../hand/useHand'

const props = defineProps<{ id: string; empty?: boolean; width: number; height: number }>()
const site = useSite()
const hand = useHand()
const canvas = useTemplateRef('canvas')
const none: Echo[] = []
const echoes = computed(() => {
  const mine = site.echoes.filter((e) => e.channels.includes(props.id))
  return mine.length ? mine : none // an empty list that stays the same draws nothing again
})
/** The ribbon as the stroke in hand would make it, until it is made or given up. */
const drafted = computed(() =>
  (hand.stroke || hand.act ? hand.draft : echoes.value.at(-1)?.draft)?.ribbons.find((r) => r.id === props.id),
)
/** What full height stands for: the channel's own full rate, or that of the site's largest channel. */
const full = computed(() => (hand.ink === 'disk' ? site.largestKbps : (site.figures.get(props.id)?.fullKbps ?? 1)))
/** The seconds kept around an event, drawn to scale at the pointer where they can be seen. */
const around = computed(() => {
  const at = hand.pointer?.channel === props.id ? hand.pointer.minute : undefined
  const c = site.channels.get(props.id)
  const length = site.plan?.activities?.find((a) => a.id === c?.activity)?.meanSeconds
  if (at === undefined || !c || !length) return undefined
  const [pre, post] = [(c.preSeconds ?? 0) / 60, (c.postSeconds ?? 0) / 60]
  const pixels = ((pre + length / 60 + post) / (hand.view.to - hand.view.from)) * props.width
  return pixels >= 8 ? { at, pre, length: length / 60, post } : undefined
})
const { pixelRatio } = useDevicePixelRatio() // drawn again when the window goes to another screen

onMounted(() => {
  watchEffect(
    () => {
      if (!canvas.value || props.width < 1 || !pixelRatio.value) return
      const c = prepare(canvas.value, props.width, props.height, palette.value, hand.view)
      const ribbon = site.ribbons.get(props.id)
      if (!ribbon || props.empty) return
      drawRibbon(c, drafted.value ?? ribbon, full.value, site.duties)
      if (drafted.value) drawGhost(c, ribbon, full.value)
      if (around.value) drawAround(c, around.value)
      for (const echo of echoes.value) {
        for (const span of echo.spans) {
          c.context.clearRect(x(c, span.from), c.height - RAIL, x(c, span.to) - x(c, span.from), RAIL)
          drawRail(c, site.duties.get(echo.duty), span)
        }
      }
    },
    { flush: 'post' },
  )
})
</script>

<template>
  <canvas
    ref="canvas"
    class="ribbon across"
    :style="{ width: `${width}px`, height: `${height}px` }"
    aria-hidden="true"
  />
</template>

<style scoped>
.ribbon {
  display: block;
}
</style>
