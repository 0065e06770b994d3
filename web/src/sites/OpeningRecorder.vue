<script setup lang="ts">
import { choices } from '../api/format'
import type { Opening } from '../api/types'
import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'
import TextField from '../ui/TextField.vue'

/** Recorders and drives of a site that is not made yet. */
defineProps<{ opening: Opening; problems: Record<string, string> }>()
const emit = defineEmits<{ change: [part: Partial<Opening>] }>()
const { layouts } = choices
</script>

<template>
  <fieldset class="sheet">
    <legend>2 · Recorder and drives</legend>
    <TextField
      label="Recorder"
      :value="opening.recorder"
      :problem="problems.recorder"
      @change="(v) => emit('change', { recorder: v })"
    />
    <NumberField
      whole
      label="How many of them"
      :value="opening.recorders ?? 1"
      :min="1"
      :max="100"
      data-field="recorders"
      @change="(v) => emit('change', { recorders: v > 1 ? v : undefined })"
    />
    <p v-if="problems.recorders" class="short" role="alert">{{ problems.recorders }}</p>
    <NumberField
      whole
      label="Channels of each"
      :value="opening.channels"
      :min="1"
      :max="5000"
      data-field="channels"
      @change="(v) => emit('change', { channels: v })"
    />
    <NumberField
      label="Intake"
      unit="Mbit/s"
      :value="opening.ingestMbps"
      :min="0.1"
      :max="1000000"
      @change="(v) => emit('change', { ingestMbps: v })"
    />
    <NumberField
      whole
      label="Drives"
      :value="opening.drives"
      :min="1"
      :max="1000"
      data-field="drives"
      @change="(v) => emit('change', { drives: v })"
    />
    <NumberField
      label="Size of each"
      unit="TB"
      :value="opening.terabytes"
      :min="0.1"
      :max="1000"
      data-field="terabytes"
      @change="(v) => emit('change', { terabytes: v })"
    />
    <ChoiceField
      label="RAID level"
      :value="opening.layout"
      :choices="layouts"
      @change="(v) => emit('change', { layout: v })"
    />
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 0 0 12px;
}

legend {
  font-weight: 600;
  padding: 0 4px;
}
</style>
