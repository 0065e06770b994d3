<script setup lang="ts">
import { computed, onMounted, useTemplateRef, watchEffect } from 'vue'

import { useSite } from '../site/useSite'
import { three } from '../ui/figures'
import { drawLayers, prepare } from './drawRibbon'
import { palette } from './palette'
import { moment, placeIn } from './time'
import { useHand } from './useHand'

const props = defineProps<{ width: number; height: number }>()
const site = useSite()
const hand = useHand()
const canvas = useTemplateRef('canvas')

/** The scale ends at a round figure above the busiest half hour. */
const top = computed(() => {
  const busiest = site.tide?.busiest ?? 1
  const step = 10 ** Math.floor(Math.log10(Math.max(busiest, 0.01)))
  return ([1, 1.5, 2, 3, 4, 5, 6, 8, 10].find((k) => k * step >= busiest * 1.08) ?? 12) * step
})
const now = computed(() => {
  const minute = hand.pointer?.minute
  const t = site.tide
  if (minute === undefined || !t) return undefined
  const i = Math.floor(minute / 30)
  return { left: placeIn(hand.view, { from: minute, to: minute }).left, mbps: t.base[i]! + t.motion[i]! + t.alarm[i]! }
})

onMounted(() => {
  watchEffect(
    () => {
      const t = site.tide
      if (!canvas.value || !t || props.width < 1) return
      const c = prepare(canvas.value, props.width, props.height, palette.value, hand.view)
      const floor = props.height - 1
      const heights = (mbps: number[]) => mbps.map((m) => (m / top.value) * (floor - 4))
      const from = t.base.map((_, i) => i * 30)
      drawLayers(c, { from, base: heights(t.base), motion: heights(t.motion), alarm: heights(t.alarm) }, new Set(), floor)
      const line = (mbps: number, color: string, dash: number[]) => {
        if (mbps > top.value) return
        c.context.strokeStyle = color
        c.context.setLineDash(dash)
        c.context.beginPath()
        const y = Math.round(floor - (mbps / top.value) * (floor - 4)) + 0.5
        c.context.moveTo(0, y)
        c.context.lineTo(props.width, y)
        c.context.stroke()
        c.context.setLineDash([])
      }
      line(t.mean, c.palette.ink, [4, 4])
      line(t.intake, c.palette.short, [])
    },
    { flush: 'post' },
  )
})
</script>

<template>
  <section class="tide" aria-label="Tide: Mbps written by the whole site">
    <div class="legend">
      <h2>Tide</h2>
      <div class="soft">Mbps written, whole site</div>
      <dl v-if="site.tide">
        <dt>mean <span class="dash" aria-hidden="true" /></dt><dd>{{ three(site.tide.mean) }}</dd>
        <dt>busiest, {{ moment(site.tide.busiestAt) }}</dt><dd>{{ three(site.tide.busiest) }}</dd>
        <dt>intake of recorders</dt><dd>{{ three(site.tide.intake) }}</dd>
      </dl>
    </div>
    <div class="chart">
      <canvas ref="canvas" :style="{ width: `${width}px`, height: `${height}px` }" aria-hidden="true" />
      <span class="scale">{{ three(top) }} Mbps</span>
      <div v-if="now" class="now" :style="{ left: now.left }"><span>{{ three(now.mbps) }}</span></div>
    </div>
  </section>
</template>

<style scoped>
.tide {
  display: grid;
  grid-template-columns: var(--channel-width) minmax(0, 1fr);
  border-top: 1px solid var(--soft);
}

.legend {
  padding: 5px 10px 4px 12px;
  font-size: 12.5px;
}

dl {
  display: grid;
  grid-template-columns: 1fr auto;
  margin: 2px 0 0;
  line-height: 1.3;
}

dt {
  color: var(--soft);
}

dd {
  margin: 0;
  text-align: right;
  font-weight: 600;
}

.dash {
  display: inline-block;
  width: 16px;
  border-top: 1px dashed var(--ink);
  vertical-align: 4px;
}

.chart {
  position: relative;
  overflow: hidden;
}

canvas {
  display: block;
}

.scale {
  position: absolute;
  top: 1px;
  right: 4px;
  font-size: 11px;
  color: var(--soft);
}

.now {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1px solid var(--soft);
}

.now span {
  padding-left: 3px;
  font-size: 11px;
}
</style>
