<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../../../api/ask'
import { api } from '../../../api/client'
import type { Course } from '../../../api/types'
import { useSite } from '../../../site/useSite'
import { dayNames } from '../../../time/week'
import { three } from '../../../ui/figures'

/** By day and hour: how much falls out when. What is picked of them is what the course shows. */
const { channel } = defineProps<{ channel: string }>()
const picked = defineModel<{ day?: number; hour?: number }>({ required: true })
const emit = defineEmits<{ course: [course: Course['hours']] }>()
const site = useSite()
const { data, failure } = useAnswer(
  () => [channel, site.stamp],
  async () => {
    const told = await api.GET('/api/plans/{id}/channels/{channel}/course', {
      params: { path: { id: site.planId, channel } },
    })
    emit('course', told.data?.hours)
    return told
  },
  { keep: true },
)
const hours = computed(() => data.value?.hours)
const most = computed(() => Math.max(1e-9, ...(hours.value?.happens ?? [])))
const cell = (i: number) => {
  const happens = hours.value?.happens?.[i] ?? 0
  const last = hours.value?.gates?.at(-1)?.pass
  const arrives = Math.min(happens, last ? (last[i] ?? 0) : 0)
  return { happens, arrives, lost: happens - arrives }
}
const isPicked = (day: number, hour: number) =>
  (picked.value.day === undefined || picked.value.day === day) &&
  (picked.value.hour === undefined || picked.value.hour === hour)
const pick = (day?: number, hour?: number) => {
  const isSame = picked.value.day === day && picked.value.hour === hour
  picked.value = isSame ? {} : { day, hour }
}
const at = ref(0) // the cell that the keyboard is on
function key(event: KeyboardEvent) {
  const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -24, ArrowDown: 24 }[event.key]
  if (by) at.value = (at.value + by + 168) % 168
  else if (event.key === 'Enter' || event.key === ' ') pick(Math.floor(at.value / 24), at.value % 24)
  else return
  event.preventDefault()
}
const said = computed(() => {
  const c = cell(at.value)
  return `${dayNames[Math.floor(at.value / 24)]} ${at.value % 24}:00: ${three(c.happens)} happen, ${three(c.lost)} start no recording`
})
</script>

<template>
  <p v-if="failure" class="short">{{ failure }}</p>
  <table
    v-else-if="hours"
    tabindex="0"
    :aria-label="`By day and hour. ${said}. Arrows move, Enter picks.`"
    data-test="when"
    @keydown="key"
  >
    <tbody>
      <tr v-for="(name, day) in dayNames" :key="name">
        <th scope="row">
          <button type="button" class="plain-button" :data-day="day" tabindex="-1" @click="pick(day)">
            {{ name.slice(0, 3) }}
          </button>
        </th>
        <td
          v-for="hour in 24"
          :key="hour"
          :class="{ picked: isPicked(day, hour - 1), at: at === day * 24 + hour - 1 }"
          :title="`${name} ${hour - 1}:00–${hour}:00: ${three(cell(day * 24 + hour - 1).happens)} happen, ${three(cell(day * 24 + hour - 1).lost)} start no recording`"
          :data-when="`${day} ${hour - 1}`"
          @click="pick(day, hour - 1)"
        >
          <i class="happens" :style="{ height: `${(100 * cell(day * 24 + hour - 1).happens) / most}%` }" />
          <i class="arrives" :style="{ height: `${(100 * cell(day * 24 + hour - 1).arrives) / most}%` }" />
        </td>
      </tr>
      <tr class="soft">
        <td />
        <td v-for="hour in 24" :key="hour">
          <button
            type="button"
            class="plain-button"
            tabindex="-1"
            :aria-label="`${hour - 1} to ${hour} on all days`"
            :data-hour="hour - 1"
            @click="pick(undefined, hour - 1)"
          >
            {{ (hour - 1) % 3 ? '·' : hour - 1 }}
          </button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  table-layout: fixed;
  border-collapse: collapse;
  font-size: var(--axis);
}

th {
  width: 34px;
  text-align: left;
  font-weight: 400;
}

td {
  position: relative;
  height: 14px;
  padding: 0;
  border: 1px solid var(--rule);
  cursor: pointer;
  text-align: center;
  opacity: 0.4;
}

tr.soft td {
  border: 0;
  opacity: 1;
}

.picked {
  opacity: 1;
}

table:focus-visible .at {
  outline: 2px solid var(--base);
}

.happens,
.arrives {
  position: absolute;
  inset: auto 0 0;
  background: color-mix(in srgb, var(--short) 55%, transparent);
}

.arrives {
  background: var(--motion);
}
</style>
