<script setup lang="ts">
import { computed, ref } from 'vue'

import { useTaken } from './useTaken'
import { note } from './useWaiting'
import { show, useView } from './view'

/** One trial: what is done, and whether each thing that should be seen was. */
const view = useView()
const { taken, of } = useTaken()
const id = view.about.value[0]!
const trial = computed(() => taken.value!.test.trials.find((t) => t.id === id))
const last = of(id).findLast((r) => r.trial)?.trial
const right = ref<Record<string, boolean | undefined>>(
  last?.key === trial.value?.key ? Object.fromEntries((last?.lines ?? []).map((l) => [l.id, l.right])) : {},
)
const remark = ref('')
const told = computed(() => trial.value?.lines.every((l) => right.value[l.id] !== undefined))
const wrong = computed(() => trial.value?.lines.some((l) => right.value[l.id] === false))

async function save() {
  const t = trial.value!
  await note(taken.value!.plan, taken.value!.test.version, id, {
    trial: {
      key: t.key,
      name: t.name,
      remark: remark.value.trim(),
      lines: t.lines.map((l) => ({ ...l, right: !!right.value[l.id] })),
    },
  })
  show(['trials'], true)
}
async function leave() {
  await save()
  await note(taken.value!.plan, taken.value!.test.version, id, {
    decision: { what: 'leave', reason: remark.value.trim() },
  })
}
</script>

<template>
  <main v-if="trial">
    <h2>{{ trial.name }}</h2>
    <p>{{ trial.do }}</p>
    <fieldset v-for="l in trial.lines" :key="l.id" class="card">
      <legend>{{ l.words }}</legend>
      <div class="acts two" role="radiogroup" :aria-label="l.words">
        <button
          type="button"
          role="radio"
          class="act"
          :class="{ filled: right[l.id] === true }"
          :aria-checked="right[l.id] === true"
          data-test="yes"
          @click="right[l.id] = true"
        >
          Yes
        </button>
        <button
          type="button"
          role="radio"
          class="act short"
          :class="{ no: right[l.id] === false }"
          :aria-checked="right[l.id] === false"
          data-test="no"
          @click="right[l.id] = false"
        >
          No
        </button>
      </div>
    </fieldset>
    <label class="field">Remark<textarea v-model="remark" rows="2"></textarea></label>
    <div class="acts">
      <button type="button" class="big filled" :disabled="!told" data-test="save-trial" @click="save">Save</button>
      <button v-if="wrong" type="button" class="act" :disabled="!told || !remark.trim()" @click="leave">
        Leave it so, for the reason in the remark
      </button>
    </div>
  </main>
  <main v-else>
    <p>This is not in the plan any more; what was seen of it is kept. <a href="#trials">To the trials</a></p>
  </main>
</template>

<style scoped>
fieldset {
  border: 0;
}

legend {
  float: left;
  width: 100%;
  padding: 0;
  overflow-wrap: anywhere;
}

.acts {
  clear: both;
  margin: 8px 0 0;
}

.act.no {
  background: var(--short);
  color: var(--sheet);
}
</style>
