<script setup lang="ts">
import { computed, nextTick, onMounted } from 'vue'

import { useTaken } from './useTaken'
import { recent, tick, useWaiting } from './useWaiting'
import { addressOf, useView } from './view'

/** The steps of a recorder's sheet, to be ticked off with or without a network. */
const view = useView()
const { taken } = useTaken()
const { waiting } = useWaiting()
const sheets = computed(() => taken.value!.sheets)
const recorder = computed(
  () => sheets.value.recorders.find((r) => r.id === view.about.value[0]) ?? sheets.value.recorders[0],
)
const sections = computed(() =>
  sheets.value.sections
    .map((s) => ({ name: s.name, steps: recorder.value?.steps.filter((st) => st.section === s.id) ?? [] }))
    .filter((s) => s.steps.length),
)
/** Ticks as they stand, those that wait among them. */
const ticked = computed(() => {
  const done = new Set(recorder.value?.steps.filter((s) => s.done).map((s) => s.key))
  for (const w of [...recent.value, ...waiting.value])
    if ('tick' in w.what && !w.refused && w.plan === taken.value!.plan && w.what.tick.recorder === recorder.value?.id)
      for (const key of w.what.tick.keys)
        if (w.what.tick.done) done.add(key)
        else done.delete(key)
  return done
})
onMounted(async () => {
  await nextTick()
  if (view.about.value[1]) document.getElementById('step ' + view.about.value[1])?.scrollIntoView({ block: 'center' })
})
</script>

<template>
  <main v-if="recorder">
    <div v-if="sheets.recorders.length > 1" class="chips">
      <a
        v-for="r in sheets.recorders"
        :key="r.id"
        class="act"
        :class="{ filled: r.id === recorder.id }"
        :href="addressOf('steps', r.id)"
        >{{ r.name }}</a
      >
    </div>
    <h2>{{ recorder.name }} · {{ ticked.size }} of {{ recorder.steps.length }} steps</h2>
    <template v-for="s in sections" :key="s.name">
      <h2>{{ s.name }}</h2>
      <ul class="rows">
        <li v-for="st in s.steps" :id="'step ' + st.id" :key="st.id" :class="{ hand: view.about.value[1] === st.id }">
          <label class="step">
            <input
              type="checkbox"
              :checked="ticked.has(st.key)"
              :data-test="'tick ' + st.id"
              @change="
                tick(
                  taken!.plan,
                  recorder!.id,
                  [st.key],
                  ($event.target as HTMLInputElement).checked,
                  `${st.id} ${st.words}`,
                )
              "
            />
            <span
              ><b>{{ st.id }}</b> {{ st.words
              }}<span v-if="st.rightWhen" class="soft"> · {{ st.rightWhen }}</span></span
            >
          </label>
        </li>
      </ul>
    </template>
  </main>
  <main v-else><p>No recorder is planned yet.</p></main>
</template>

<style scoped>
.step {
  display: flex;
  gap: 12px;
  align-items: center;
  min-height: 56px;
  padding: 8px 4px;
  overflow-wrap: anywhere;
}

.step > span {
  min-width: 0;
}

.hand {
  background: var(--selected);
}

.chips {
  display: grid;
  gap: 8px;
}
</style>
