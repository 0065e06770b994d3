<script setup lang="ts">
import { useDevicePixelRatio } from '@vueuse/core'
import { computed, onMounted, ref, useTemplateRef, watchEffect } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useSite } from '../../site/useSite'
import { count, three } from '../../ui/figures'
import { prepare } from '../../drawing/drawRibbon'
import { drawTide } from '../../drawing/drawTide'
import { palette } from '../../theme/palette'
import { dayOf, fromMonday, placeIn, WEEK, type Span } from '../../time/week'
import { useHand } from '../../hand/useHand'
import TideLegend from './TideLegend.vue'

/** What the site, or the channels selected, write together. Dragging over it selects a time. */
const props = defineProps<{ width: number; height: number; paint: (channels: string[], span: Span) => void }>()
const site = useSite()
const hand = useHand()
const canvas = useTemplateRef('canvas')
const { pixelRatio } = useDevicePixelRatio()
const ofSelection = ref(false)
const chosen = computed(() => (ofSelection.value && hand.selection.length ? hand.selection : []))
const { data: asked } = useAnswer(
  () => [chosen.value, hand.brush, site.stamp],
  () => {
    if (!chosen.value.length && !hand.brush) return undefined
    const body = { ...(chosen.value.length && { channels: chosen.value }), ...(hand.brush && fromMonday(hand.brush)) }
    return api.POST('/api/plans/{id}/tide', { params: site.here, body })
  },
  { debounce: 40, keep: true },
)
const tide = computed(() => asked.value ?? (hand.stroke ? hand.draft : site.echoes.at(-1)?.draft)?.tide ?? site.tide)

/** The scale ends at a round figure above the busiest half hour of the site, so that a selection shows its part. */
const top = computed(() => {
  const busiest = site.tide?.busiest ?? 1
  const step = 10 ** Math.floor(Math.log10(Math.max(busiest, 0.01)))
  return ([1, 1.5, 2, 3, 4, 5, 6, 8, 10].find((k) => k * step >= busiest * 1.08) ?? 12) * step
})
const now = computed(() => {
  const minute = hand.pointer?.minute
  const t = tide.value
  if (minute === undefined || !t) return undefined
  const i = Math.floor(minute / 30)
  return { left: placeIn(hand.view, { from: minute, to: minute }).left, mbps: t.base[i]! + t.motion[i]! + t.alarm[i]! }
})

let from: number | undefined
function minuteAt(event: PointerEvent): number {
  const box = canvas.value!.getBoundingClientRect()
  const at = hand.view.from + ((event.clientX - box.left) / box.width) * (hand.view.to - hand.view.from)
  return Math.max(0, Math.min(WEEK, Math.round(at / 30) * 30))
}

function down(event: PointerEvent) {
  if (event.button !== 0) return
  canvas.value!.setPointerCapture(event.pointerId)
  from = minuteAt(event)
  hand.brush = undefined
}

function move(event: PointerEvent) {
  if (from === undefined) return
  const to = minuteAt(event)
  hand.brush = to === from ? undefined : { from: Math.min(from, to), to: Math.max(from, to) }
}

const place = computed(() => hand.brush && placeIn(hand.view, hand.brush))
const who = computed(() =>
  hand.selection.length ? hand.selection : (site.plan?.channels ?? []).filter((c) => !c.noCamera).map((c) => c.id),
)
const sameDay = computed(() => hand.brush && dayOf(hand.brush.from) === dayOf(hand.brush.to - 1))

onMounted(() => {
  watchEffect(
    () => {
      if (!canvas.value || !tide.value || props.width < 1 || !pixelRatio.value) return
      drawTide(prepare(canvas.value, props.width, props.height, palette.value, hand.view), tide.value, top.value)
    },
    { flush: 'post' },
  )
})
</script>

<template>
  <section class="tide" aria-label="Tide: Mbit/s written">
    <TideLegend v-model:of-selection="ofSelection" :tide="tide" />
    <div class="chart">
      <canvas
        ref="canvas"
        class="across"
        :style="{ width: `${width}px`, height: `${height}px` }"
        aria-hidden="true"
        data-test="tide"
        @pointerdown="down"
        @pointermove="move"
        @pointerup="from = undefined"
        @pointercancel="from = undefined"
      />
      <span class="scale">{{ three(top) }} Mbit/s</span>
      <div v-if="now" class="now" :style="{ left: now.left }">
        <span>{{ three(now.mbps) }}</span>
      </div>
      <div v-if="place && hand.brush" class="brush" :style="place" />
      <div v-if="hand.brush" class="acts">
        <button
          type="button"
          class="act quiet"
          data-test="brush-zoom"
          @click="hand.look(hand.brush.from, hand.brush.to)"
        >
          Look closer
        </button>
        <button type="button" class="act quiet" data-test="brush-paint" @click="paint(who, hand.brush!)">
          Paint {{ sameDay ? 'it' : hand.means }} on {{ count(who.length, 'channel') }}
        </button>
        <button type="button" class="act quiet" aria-label="Forget this time" @click="hand.brush = undefined">×</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.tide {
  display: grid;
  grid-template-columns: var(--channel-width) minmax(0, 1fr);
  border-top: 1px solid var(--soft);
}

.chart {
  position: relative;
  overflow: hidden;
}

canvas {
  display: block;
}

.chart canvas {
  cursor: crosshair;
  touch-action: none;
}

.brush {
  position: absolute;
  top: 0;
  bottom: 0;
  border: 1px solid var(--base);
  border-width: 0 1px;
  background: color-mix(in srgb, var(--base) 14%, transparent);
  pointer-events: none;
}

.acts {
  position: absolute;
  left: 8px;
  top: 5px;
  display: flex;
  gap: 6px;
}

.acts .act {
  background: var(--sheet);
  font-size: var(--second);
}

.scale {
  position: absolute;
  top: 1px;
  right: 4px;
  font-size: var(--axis);
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
  font-size: var(--axis);
}
</style>
