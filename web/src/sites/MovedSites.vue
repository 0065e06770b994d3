<script setup lang="ts">
import { useIntervalFn, useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { change, count, days, whole } from '../ui/figures'

/** How far sites are estimated by the method as it is, and which of them it moved. */
const turn = ref(0)
const { data } = useAnswer(
  () => turn.value,
  () => api.GET('/api/sites/estimated'),
  { keep: true },
)
const going = computed(() => !!data.value && data.value.done < data.value.total)
useIntervalFn(() => going.value && turn.value++, 2500)

const moved = computed(() => data.value?.moved ?? [])
/** Which sites were moved to what, so that those who have read it are told of the next ones only. */
const told = computed(() => moved.value.map((m) => `${m.site} ${m.now.keptDays}`).join())
const read = useStorage('wakefield-moved-read', '')
const open = ref(false)
const off = (m: (typeof moved.value)[number]) =>
  m.was.keptDays != null && m.now.keptDays != null ? change(m.now.keptDays - m.was.keptDays) : ''
</script>

<template>
  <p v-if="going" class="soft" role="status" data-test="estimating">
    {{ whole(data!.done) }} of {{ count(data!.total, 'site') }} estimated
  </p>
  <section v-if="moved.length && read !== told" class="moved" aria-label="Moved by a new method" data-test="moved">
    <p>
      The figures of this version of Wakefield differ from those before:
      <b>{{ count(moved.length, 'site') }} moved by more than a day</b>, though nobody changed
      {{ moved.length === 1 ? 'it' : 'them' }}.
      <button type="button" class="plain-button" :aria-expanded="open" data-test="show-moved" @click="open = !open">
        {{ open ? 'Hide them' : 'Show them' }}
      </button>
      <button type="button" class="plain-button" data-test="moved-read" @click="read = told">I have read it</button>
    </p>
    <table v-if="open">
      <thead>
        <tr>
          <th>Site</th>
          <th class="number">before</th>
          <th class="number">now</th>
          <th class="number">difference, d</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="m in moved" :key="m.site">
          <td>
            <RouterLink :to="`/sites/${m.site}`">{{ m.name }}</RouterLink>
          </td>
          <td class="number">{{ days(m.was.keptDays) }}</td>
          <td class="number" :class="{ short: m.now.short }">{{ days(m.now.keptDays) }}</td>
          <td class="number">{{ off(m) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
/* What goes on stands in the margin below, so that no line moves when it begins and ends. */
[data-test='estimating'] {
  position: fixed;
  right: 16px;
  bottom: 0;
  font-size: var(--axis);
}

.moved {
  background: var(--band);
  border-radius: 6px;
  padding: 8px 12px;
  max-height: 40vh;
  overflow: auto;
}

p {
  margin: 0;
}

button {
  color: var(--base);
  margin-left: 8px;
}

table {
  border-collapse: collapse;
}

th,
td {
  padding: 1px 24px 1px 0;
  text-align: left;
  font-weight: 400;
}

.number {
  text-align: right;
}
</style>
