<script setup lang="ts">
import { computed } from 'vue'

/** Days kept at every date of a year, lines over its months; what is required as a dashed line. */
export interface YearCurve {
  id: string
  days: number[]
  look: 'first' | 'second' | 'short'
}
const { from, curves, required } = defineProps<{ from: string; curves: YearCurve[]; required: number; label: string }>()
const most = computed(() => Math.max(required, ...curves.map((c) => Math.max(...c.days))) * 1.1 || 1)
const dates = computed(() => Math.max(365, ...curves.map((c) => c.days.length)))
const place = (days: number) => 60 - (58 * days) / most.value
const line = (days: number[]) => days.map((d, i) => `${i},${place(d).toFixed(1)}`).join(' ')
const monthName = new Intl.DateTimeFormat('en-GB', { month: 'narrow', timeZone: 'UTC' })
const months = computed(() => {
  const first = Date.parse(from)
  return Array.from({ length: 12 }, (_, m) => {
    const at = Date.UTC(new Date(first).getUTCFullYear(), m, 1)
    return { m, name: monthName.format(at), day: (at - first) / 86_400_000 }
  })
})
</script>

<template>
  <div>
    <svg :viewBox="`0 0 ${dates} 62`" preserveAspectRatio="none" role="img" :aria-label="label">
      <line v-for="m in months.slice(1)" :key="m.m" :x1="m.day" :x2="m.day" y1="0" y2="62" class="month" />
      <line v-if="required" x1="0" :x2="dates" :y1="place(required)" :y2="place(required)" class="required" />
      <polyline v-for="c in curves" :key="c.id" :points="line(c.days)" :class="c.look" :data-curve="c.id" />
    </svg>
    <p class="months soft" aria-hidden="true">
      <span v-for="m in months" :key="m.m">{{ m.name }}</span>
    </p>
  </div>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  height: 86px;
  border-bottom: 1px solid var(--rule);
}

polyline {
  fill: none;
  stroke: var(--base);
  stroke-width: 1.5;
  vector-effect: non-scaling-stroke;
}

.short {
  stroke: var(--short);
}

.second {
  stroke: var(--motion);
  stroke-dasharray: 7 3;
}

.month {
  stroke: var(--rule);
  vector-effect: non-scaling-stroke;
}

.required {
  stroke: var(--soft);
  stroke-dasharray: 4 3;
  vector-effect: non-scaling-stroke;
}

.months {
  display: grid;
  grid-template-columns: repeat(12, 1fr);
  margin: 0;
  font-size: 11px;
  text-align: center;
}
</style>
