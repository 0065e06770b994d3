<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { ref } from 'vue'

import { firstOf, kept, KEPT } from '../habits/kept'
import { habitsOf } from '../habits/now'
import { written } from '../habits/write'
import { DAY, dayNames, toShown } from '../time/week'

/** How times of day, numbers and the week are shown in this browser. Nothing that is stored changes. */
const emit = defineEmits<{ closed: [] }>()
const open = ref(true)
const chosen = kept.split('|')
const [clock, first, signs] = [ref(chosen[0] ?? ''), ref(chosen[1] ?? ''), ref(chosen[2] ?? '')]
/** A day that is counted from Monday. */
const dayName = (day: number) => dayNames[toShown(day * DAY) / DAY]!
const sample = (clock: string, signs: string, text: string) =>
  written(text, habitsOf([clock, '', signs].join('|'), navigator.language))
const time = (clock: string) => sample(clock, '', '18:30')
const number = (signs: string) => sample('', signs, '1\u202f234.5')
const questions = [
  { name: 'Times', model: clock, choices: ['24', '12'].map((c) => [c, time(c)] as const), browser: time('') },
  {
    name: 'Numbers',
    model: signs,
    choices: ['\u202f.', '\u202f,', ',.', '.,', '’.'].map((s) => [s, number(s)] as const),
    browser: number(''),
  },
  {
    name: 'The week begins on',
    model: first,
    choices: [0, 5, 6].map((day) => [String(day), dayName(day)] as const),
    browser: dayName(firstOf('', navigator.language)),
  },
]

function apply() {
  localStorage.setItem(KEPT, [clock.value, first.value, signs.value].join('|'))
  location.reload()
}
</script>

<template>
  <section aria-label="Times and numbers">
    <ElDialog v-model="open" title="Times and numbers" width="420" @closed="emit('closed')">
      <form data-own @submit.prevent="apply">
        <fieldset v-for="q in questions" :key="q.name" :data-test="`habit-${q.name}`">
          <legend>{{ q.name }}</legend>
          <label
            ><input v-model="q.model.value" type="radio" :name="q.name" value="" /> {{ q.browser }}
            <span class="soft">as this browser has it</span></label
          >
          <label v-for="[value, words] in q.choices" :key="value"
            ><input v-model="q.model.value" type="radio" :name="q.name" :value="value" /> {{ words }}</label
          >
        </fieldset>
        <p class="soft">
          For this browser only. What is stored, printed and exported stays one: 24 hours, from Monday on, 1 234.5.
        </p>
      </form>
      <template #footer>
        <ElButton @click="open = false">Cancel</ElButton>
        <ElButton type="primary" data-test="keep-habits" @click="apply">Apply</ElButton>
      </template>
    </ElDialog>
  </section>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0 0 12px;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}

legend {
  font-weight: 600;
  padding: 0;
}

label:first-of-type {
  flex-basis: 100%;
}
</style>
