<script setup lang="ts">
import type { SheetStep } from '../../api/types'
import { ago } from './ago'

/** One thing to do, with a box to tick. */
const props = defineProps<{ step: SheetStep; inHand: boolean; busy: boolean }>()
const emit = defineEmits<{ hand: []; tick: [done: boolean] }>()
const ticked = () => emit('tick', !props.step.done)
</script>

<template>
  <li
    class="step"
    :class="{ done: step.done, inHand, changed: step.changed || step.since }"
    :data-step="step.id"
    @click="emit('hand')"
  >
    <input
      type="checkbox"
      :checked="!!step.done"
      :disabled="busy"
      :aria-label="`${step.id} is done`"
      :aria-describedby="`words-${step.id}`"
      @click.stop
      @change="ticked"
      @focus="emit('hand')"
    />
    <span class="id soft">{{ step.id }}</span>
    <div>
      <p :id="`words-${step.id}`" class="words">{{ step.words }}</p>
      <p v-if="step.why" class="soft note">{{ step.why }}</p>
      <p v-if="step.rightWhen" class="note"><em>right when</em> {{ step.rightWhen }}</p>
      <p v-if="step.changed" class="short note" data-test="changed">
        It was done otherwise: the plan has changed since.
      </p>
      <p v-else-if="step.since && !step.done" class="short note">Not on the sheet that was printed.</p>
      <p v-if="step.done" class="soft note" data-test="done">
        {{ step.done.author }}, {{ ago(step.done.at) }}, revision {{ step.done.revision }}
      </p>
    </div>
  </li>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 18px 34px minmax(0, 1fr);
  gap: 6px;
  padding: 7px 8px 7px 6px;
  border-bottom: 1px solid var(--rule);
  border-left: 3px solid transparent;
}

.inHand {
  border-left-color: var(--base);
  background: var(--selected);
}

input {
  width: 15px;
  height: 15px;
  margin: 1px 0 0;
}

p {
  margin: 0;
  overflow-wrap: anywhere;
}

.note {
  font-size: var(--second);
}

.done .words {
  color: var(--soft);
}

.id {
  font-size: var(--second);
}

@media (max-width: 500px) {
  .step {
    grid-template-columns: 30px 36px minmax(0, 1fr);
    padding: 10px 4px;
  }

  input {
    width: 24px;
    height: 24px;
  }
}
</style>
