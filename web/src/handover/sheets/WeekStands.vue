<script setup lang="ts">
import { computed } from 'vue'

import type { Duty, Rail } from '../../api/types'
import DutySwatch from '../../duties/DutySwatch.vue'
import { clock, DAY, dayNames } from '../../time/week'

/** A week as it stands at a recorder, a day below another, for comparing it with the recorder's screen. */
const props = defineProps<{ rail: Rail; duties: Map<string, Duty>; words: Record<string, string> }>()
const delivered: Duty = { id: '', name: 'As delivered: round the clock', base: { stream: 'main' } }
const dutyOf = (id: string) => (id ? (props.duties.get(id) ?? { id, name: id }) : delivered)

const days = computed(() =>
  dayNames.map((day, d) => {
    const [begin, end] = [d * DAY, (d + 1) * DAY]
    const runs = props.rail
      .map((step, i) => ({
        duty: dutyOf(step.duty),
        from: Math.max(step.from, begin),
        to: Math.min(props.rail[i + 1]?.from ?? 7 * DAY, end),
      }))
      .filter((r) => r.from < r.to)
    return { name: day.slice(0, 3), runs: runs.map((r) => ({ ...r, percent: (100 * (r.to - r.from)) / DAY })) }
  }),
)
const used = computed(() => [...new Map(props.rail.map((s) => [s.duty, dutyOf(s.duty)])).values()])
const kind = (d: Duty) =>
  d.base && d.event ? 'both' : d.base ? 'base' : d.event?.on.includes('motion') ? 'motion' : d.event ? 'alarm' : 'off'
const called = (d: Duty) => props.words[d.id] ?? d.name
</script>

<template>
  <div>
    <div v-for="day in days" :key="day.name" class="day">
      <span class="soft">{{ day.name }}</span>
      <span
        class="bar"
        role="img"
        :aria-label="`${day.name}: ${day.runs.map((r) => `from ${clock(r.from % DAY)} ${called(r.duty)}`).join(', ')}`"
        ><i
          v-for="(r, i) in day.runs"
          :key="i"
          :class="kind(r.duty)"
          :style="{ width: `${r.percent}%` }"
          :title="`${clock(r.from % DAY)}–${clock(r.to % DAY || DAY)} ${called(r.duty)}`"
      /></span>
    </div>
    <div class="day scale soft" aria-hidden="true">
      <span /><span class="hours"
        ><i v-for="h in [0, 6, 12, 18, 24]" :key="h" data-hour>{{ h }}</i></span
      >
    </div>
    <ul>
      <li v-for="d in used" :key="d.id"><DutySwatch :duty="d" /> {{ called(d) }}</li>
    </ul>
  </div>
</template>

<style scoped>
.day {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr);
  gap: 4px;
  align-items: center;
  height: 20px;
  font-size: var(--second);
}

.bar {
  display: flex;
  height: 13px;
  border-bottom: 2px solid var(--rule);
}

.base {
  background: var(--base);
}

.motion {
  background: repeating-linear-gradient(90deg, var(--motion) 0 1px, transparent 1px 4px);
}

.both {
  background:
    linear-gradient(0deg, var(--base) 0 5px, transparent 5px),
    repeating-linear-gradient(90deg, var(--motion) 0 1px, transparent 1px 4px);
}

.alarm {
  background: repeating-linear-gradient(135deg, var(--alarm) 0 1.5px, transparent 1.5px 5px);
}

.hours {
  display: flex;
  justify-content: space-between;
  font-size: var(--axis);
}

.hours i {
  font-style: normal;
}

ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  font-size: var(--second);
}

li {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 1px 0;
}
</style>
