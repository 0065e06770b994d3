<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'

import type { Course, Finding } from '../../../api/types'
import MendButton from '../../../findings/MendButton.vue'
import { useEffects } from '../../../findings/useEffects'
import { dayNames } from '../../../time/week'
import { three } from '../../../ui/figures'
import CourseWhen from './CourseWhen.vue'
import TermTip from '../../../ui/TermTip.vue'
import { useShapes } from './useShapes'

/** The course of a day's wanted events, as wide as there is of them, and nuisance beside it. */
const { course, channel, findings } = defineProps<{ course: Course; channel: string; findings: Finding[] }>()
const tried = useEffects(() => findings.filter((f) => f.gate))
/** What would mend the loss at a gate, where a finding has it. */
const fixOf = (gate: Gate | undefined) => gate && findings.find((f) => f.gate === gate && f.fix && !f.accepted)

/** By day and hour, when asked: the sums of the hours that are picked, or of a mean day. */
const open = ref(false)
const picked = ref<{ day?: number; hour?: number }>({})
const hours = shallowRef<Course['hours']>()
watch(
  () => [open.value, channel],
  () => (picked.value = {}),
)
const isNarrow = computed(() => open.value && !!hours.value && (picked.value.day ?? picked.value.hour) !== undefined)
const sum = (rates: number[] | null | undefined) => {
  const { day, hour } = picked.value
  const all = (rates ?? []).filter(
    (_, i) => (day === undefined || Math.floor(i / 24) === day) && (hour === undefined || i % 24 === hour),
  )
  return all.reduce((a, b) => a + b, 0) / (day === undefined ? 7 : 1)
}
const when = computed(() => {
  const { day, hour } = picked.value
  const time = hour === undefined ? '' : `, ${hour}:00 to ${hour + 1}:00`
  return isNarrow.value ? (day === undefined ? `a day${time}` : `on a ${dayNames[day]}${time}`) : 'a day'
})
const happens = computed(() => (isNarrow.value ? sum(hours.value?.happens) : course.happensPerDay))
const gates = computed(() => {
  if (!isNarrow.value) return course.gates
  let before = happens.value
  return (hours.value?.gates ?? []).map((g) => {
    const passPerDay = Math.min(before, sum(g.pass))
    const gate = { gate: g.gate, passPerDay, lostPerDay: before - passPerDay }
    before = passPerDay
    return gate
  })
})
const nuisance = computed(() => (isNarrow.value ? sum(hours.value?.nuisance) : course.nuisancePerDay))
const unwanted = computed(() => (isNarrow.value ? sum(hours.value?.unwantedTriggers) : course.unwantedTriggersPerDay))

type Gate = Course['gates'][number]['gate']
const words: Record<Gate, [string, string]> = {
  on: ['detection is on', 'detection is off'],
  area: ['in an area', 'beside every area'],
  large: ['large enough', 'too small'],
  hours: ['in hours', 'out of hours'],
  long: ['long enough', 'too short'],
  detector: ['noticed', 'missed by the detector'],
  tied: ['tied', 'tied to nothing'],
  duty: ['duty listens', 'duty does not listen'],
}
const all = computed(() => Math.max(happens.value, 1e-9))
const steps = computed(() => [
  { name: 'happens', pass: happens.value, lost: 0, why: '', gate: undefined },
  ...gates.value.map((g) => ({
    name: words[g.gate][0],
    pass: g.passPerDay,
    lost: g.lostPerDay,
    why: words[g.gate][1],
    gate: g.gate,
  })),
])
const { flow, losses, disk, joined, fork, columns, under } = useShapes(steps, all, () =>
  isNarrow.value ? undefined : course.fullPerDay + course.lowPerDay,
)
const little = (v: number) => (v < 0.05 ? '0' : three(v))
</script>

<template>
  <section class="course" aria-label="From what happens to what is on disk, a day" data-test="course">
    <h2>
      <TermTip word="course">From what happens to what is on disk</TermTip>, {{ when }}
      <button type="button" class="plain-button link" :aria-expanded="open" data-test="by-hour" @click="open = !open">
        {{ open ? 'all of the week' : 'by day and hour' }}
      </button>
    </h2>
    <CourseWhen v-if="open" v-model="picked" :channel="channel" @course="(h) => (hours = h)" />
    <p v-if="!course.gates.length" class="soft">No wanted activity is known for this channel; choose one in Kit.</p>
    <template v-else>
      <div class="gates" :style="{ '--n': columns }">
        <svg :viewBox="`0 0 ${columns} 100`" preserveAspectRatio="none" aria-hidden="true">
          <polygon v-for="(f, i) in flow" :key="i" :points="f" />
          <polygon v-if="disk" :points="joined" />
          <polygon v-if="fork" :points="fork" class="base" />
        </svg>
        <div v-for="s in steps" :key="s.name" class="gate" :data-gate="s.name">
          <span class="soft">{{ s.name }}</span>
          <b>{{ little(s.pass) }}</b>
          <i class="bar" :style="{ height: `${(52 * s.pass) / all}px` }" />
        </div>
        <div v-if="disk" class="gate" data-gate="on disk">
          <span class="soft">on disk</span>
          <b>{{ little(disk.sum) }}</b>
          <i class="bar" :style="{ height: `${(52 * disk.triggered) / all}px` }" />
          <i
            class="bar base"
            :style="{ height: `${(52 * disk.base) / all}px`, marginTop: `${(52 * disk.triggered) / all}px` }"
          />
        </div>
        <p
          v-for="s in losses"
          :key="s.name"
          class="lost"
          :data-lost="s.name"
          :class="{ short: !disk || course.missedPerDay > all / 200, ends: s.at >= columns / 2 }"
          :style="{ gridColumn: under(s.at) }"
        >
          −{{ little(s.lost) }} {{ s.why }}
          <MendButton v-if="fixOf(s.gate)" :finding="fixOf(s.gate)!" :tried="tried" brief />
        </p>
      </div>
      <p v-if="fork" class="soft" data-test="fork">
        <i class="swatch" aria-hidden="true" /> {{ little(disk!.base) }} of those that no trigger records are in the
        base layer, whatever is noticed.
      </p>
      <p v-if="!isNarrow" data-test="fate">
        On disk: <b>{{ little(course.fullPerDay) }}</b> in full, <b>{{ little(course.lowPerDay) }}</b> at a lower
        quality, <b :class="{ short: course.missedPerDay > 0.05 }">{{ little(course.missedPerDay) }}</b> missed.
      </p>
    </template>
    <p v-if="nuisance > 0" class="nuisance" data-test="nuisance">
      <i class="dots" aria-hidden="true" /> Nuisance: {{ little(nuisance) }} {{ when }} move,
      <b>{{ little(unwanted) }}</b> start a recording.
    </p>
  </section>
</template>

<style scoped>
.course {
  padding: 8px 0 0;
}

.gates {
  position: relative;
  display: grid;
  grid-template-columns: repeat(var(--n), minmax(0, 1fr));
  margin-top: 4px;
}

svg {
  position: absolute;
  top: 20px;
  left: 0;
  width: 100%;
  height: 52px;
}

polygon {
  fill: color-mix(in srgb, var(--motion) 32%, transparent);
}

polygon.base {
  fill: color-mix(in srgb, var(--base) 45%, transparent);
}

.bar.base {
  background: var(--base);
}

.swatch {
  display: inline-block;
  width: 18px;
  height: 8px;
  background: var(--base);
}

.gate {
  position: relative;
  display: grid;
  grid-template-rows: 20px 52px auto;
  font-size: var(--second);
}

.gate > .soft {
  white-space: nowrap;
}

.bar {
  position: absolute;
  top: 20px;
  width: 8px;
  max-height: 52px;
  background: var(--motion);
}

.gate b {
  position: relative;
  padding-left: 13px;
  font-size: var(--text);
}

.lost {
  margin: 2px 0 0;
  font-size: var(--second);
}

.lost.ends {
  text-align: right;
  padding-right: 8px;
}

p {
  margin: 6px 0 0;
}

@media (max-width: 760px) {
  .gate > .soft {
    font-size: var(--axis);
    padding-right: 4px;
  }

  svg,
  .bar {
    top: 32px;
  }

  .gate {
    grid-template-rows: 32px 52px auto;
  }

  .gate > .soft {
    white-space: normal;
    line-height: 1.2;
  }
}

.dots {
  display: inline-block;
  width: 18px;
  height: 10px;
  background: radial-gradient(circle at 3px 3px, var(--soft) 1.5px, transparent 1.6px) 0 0 / 6px 5px;
}
</style>
