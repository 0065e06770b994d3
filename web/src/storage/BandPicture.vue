<script setup lang="ts">
import { computed, useId, useTemplateRef } from 'vue'

import { gigabytes } from '../ui/figures'
import { edgesOf, MARGIN, stack, stepOf, type Layer } from './band'
import type { PoolMark } from './usePoolMarks'

/**
 * The past of a pool, hour by hour from now back to the oldest: what was written, layer on layer, until it is gone. The
 * area is the disk; what is short of the requirement stands beside it, hatched.
 */
const { layers, days, marks, shortGB, kept, pointed } = defineProps<{
  layers: Layer[]
  days: number // how far back the picture goes
  marks: PoolMark[]
  shortGB: number
  kept: number // days, until the pool is full
  pointed: string
  label: string
}>()
const emit = defineEmits<{ point: [layer: string, daysBack: number] }>()
const W = 1000
const H = 120
const id = useId()
const picture = useTemplateRef('picture')
const scale = computed(() => days * MARGIN)
const x = (d: number) => (W * d) / scale.value
const edges = computed(() => edgesOf(layers, days))
const outlines = computed(() => stack(layers, edges.value, stepOf(days)))
const top = computed(() => Math.max(1, ...(outlines.value.at(-1)?.map(([, , high]) => high) ?? [])))
const y = (kbps: number) => H - (kbps / top.value) * (H - 6)
const paths = computed(() =>
  outlines.value.map((points) => {
    const edge = (part: 1 | 2) => points.map((p) => `${x(p[0]).toFixed(1)} ${y(p[part]).toFixed(1)}`)
    return `M${edge(2).join('L')}L${edge(1).reverse().join('L')}Z`
  }),
)
/** How high all is on average, which is what more days would take. */
const mean = computed(() =>
  layers.reduce((s, l) => s + l.parts.reduce((t, p) => t + (p.kept >= kept - 1e-6 ? p.mean : 0), 0), 0),
)
const required = computed(() => Math.max(0, ...marks.filter((m) => m.kind === 'required').map((m) => m.days)))
/** Names where their layer is thick enough for long enough, as shares of the picture. */
const names = computed(() => {
  const wide = days / 9
  return layers.flatMap((l, i) => {
    let best = { room: 13, at: 0, left: 0 }
    const spans = outlines.value[i]!.filter((_, j) => j % 2 === 0)
    for (const [start] of spans.filter(([from]) => from < days / 3)) {
      const under = spans.filter(([from], j) => from < start + wide && (spans[j + 1]?.[0] ?? days) > start)
      const low = y(Math.max(...under.map((p) => p[1])))
      const high = y(Math.min(...under.map((p) => p[2])))
      if (low - high > best.room * (best.at ? 1.4 : 1))
        best = { room: low - high, at: (low + high) / 2 / H, left: x(start) / W }
    }
    return best.at ? [{ id: l.id, name: l.name, tone: i % 4, ...best }] : []
  })
})

function move(event: PointerEvent) {
  const box = picture.value!.getBoundingClientRect()
  const back = ((event.clientX - box.left) / box.width) * scale.value
  const kbps = ((H - ((event.clientY - box.top) / box.height) * H) / (H - 6)) * top.value
  const at = 2 * edges.value.findIndex((edge, j) => back >= edge && back < (edges.value[j + 1] ?? 0))
  const i = at < 0 ? -1 : outlines.value.findIndex((o) => kbps >= o[at]![1] && kbps < o[at]![2])
  emit('point', layers[i]?.id ?? '', back)
}
</script>

<template>
  <div class="picture">
    <svg
      ref="picture"
      :viewBox="`0 0 ${W} ${H}`"
      preserveAspectRatio="none"
      role="img"
      :aria-label="label"
      @pointermove="move"
      @pointerleave="emit('point', '', 0)"
    >
      <defs>
        <pattern :id="id" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" class="lacking" />
        </pattern>
      </defs>
      <path
        v-for="(d, i) in paths"
        :key="layers[i]!.id"
        :d="d"
        :class="[`tone${i % 4}`, layers[i]!.id, { pointed: pointed === layers[i]!.id }]"
        :data-layer="layers[i]!.id"
      />
      <rect
        v-if="shortGB > 0 && required > kept"
        :x="x(kept)"
        :y="y(mean)"
        :width="x(required) - x(kept)"
        :height="H - y(mean)"
        :fill="`url(#${id})`"
        class="wanting"
        data-test="short-area"
      />
      <line v-for="m in marks" :key="`under ${m.name}`" :x1="x(m.days)" :x2="x(m.days)" y1="0" :y2="H" class="halo" />
      <line
        v-for="m in marks"
        :key="m.name"
        :x1="x(m.days)"
        :x2="x(m.days)"
        y1="0"
        :y2="H"
        class="mark"
        :class="m.kind"
      />
      <line x1="0" :x2="W" :y1="H" :y2="H" class="axis" />
    </svg>
    <span
      v-for="n in names"
      :key="n.id"
      class="name"
      :class="[`on${n.tone}`, n.id]"
      :style="{ top: `${100 * n.at}%`, left: `calc(${100 * n.left}% + 7px)` }"
      aria-hidden="true"
      >{{ n.name }}</span
    >
    <b
      v-if="shortGB > 0 && required > kept"
      class="lack"
      :style="{ right: `${100 - x(required) / 10}%` }"
      data-test="short-gb"
      >{{ gigabytes(shortGB) }} short</b
    >
  </div>
</template>

<style scoped>
.picture {
  position: relative;
  height: 132px;
}

svg {
  display: block;
  width: 100%;
  height: 100%;
}

path {
  stroke: var(--paper);
  stroke-width: 0.75;
  vector-effect: non-scaling-stroke;
}

/* Groups and channels are greys: colours are those of footage. */
.tone0 {
  fill: color-mix(in srgb, var(--ink) 80%, var(--sheet));
}

.tone1 {
  fill: color-mix(in srgb, var(--ink) 62%, var(--sheet));
}

.tone2 {
  fill: color-mix(in srgb, var(--ink) 38%, var(--sheet));
}

.tone3 {
  fill: color-mix(in srgb, var(--ink) 20%, var(--sheet));
}

path.base {
  fill: var(--base);
}

path.motion {
  fill: color-mix(in srgb, var(--motion) 70%, var(--sheet));
}

path.alarm {
  fill: color-mix(in srgb, var(--alarm) 70%, var(--sheet));
}

path.pointed {
  stroke: var(--ink);
  stroke-width: 2;
}

.name {
  position: absolute;
  transform: translateY(-50%);
  max-width: 11%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 1.1;
  font-size: var(--axis);
  color: var(--sheet);
  pointer-events: none;
}

.name.on2,
.name.on3 {
  color: var(--ink);
}

@media (max-width: 700px) {
  .name {
    display: none;
  }
}

.lacking {
  stroke: var(--short);
  stroke-width: 1.6;
  stroke-opacity: 0.4;
}

.wanting {
  stroke: var(--short);
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}

.lack {
  position: absolute;
  top: 2px;
  padding: 0 4px;
  background: color-mix(in srgb, var(--paper) 82%, transparent);
  color: var(--short);
  font-size: var(--second);
  pointer-events: none;
}

.halo {
  stroke: var(--paper);
  stroke-width: 4;
  stroke-opacity: 0.75;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}

.axis {
  stroke: var(--soft);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}
</style>
