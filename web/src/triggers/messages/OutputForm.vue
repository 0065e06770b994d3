<script setup lang="ts">
import { computed } from 'vue'

import { choices } from '../../api/format'
import type { Output } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import DurationField from '../../ui/DurationField.vue'
import HoursField from '../../ui/HoursField.vue'
import SwitchField from '../../ui/SwitchField.vue'
import TextField from '../../ui/TextField.vue'
import { useEdits } from '../parts/useEdits'

/** Something that a recorder switches on for a while. */
const { output } = defineProps<{ output: Output }>()
const site = useSite()
const { problem, change } = useEdits()
const recorders = computed(() => (site.plan?.recorders ?? []).map((r) => [r.id, r.name] as const))
const set = (part: Partial<Output>) => change({ setOutput: { output: { ...output, ...part } } })
</script>

<template>
  <div class="form" :data-output="output.id">
    <TextField label="Output" :value="output.name" :maxlength="100" @change="(name) => name && set({ name })" />
    <ChoiceField
      label="Is a"
      :value="output.kind"
      :choices="choices.outputKinds.value"
      @change="(kind) => set({ kind })"
    />
    <ChoiceField label="Of" :value="output.recorder" :choices="recorders" @change="(recorder) => set({ recorder })" />
    <DurationField
      label="On for"
      :value="output.holdSeconds"
      member="outputs.holdSeconds"
      @change="(holdSeconds) => set({ holdSeconds })"
    />
    <SwitchField
      label="Every trigger prolongs it"
      :value="output.prolonged"
      @change="(prolonged) => set({ prolonged })"
    />
    <HoursField
      label="Goes on"
      empty="always"
      :value="output.hours?.blocks"
      @change="(blocks) => set({ hours: blocks.length ? { blocks } : undefined })"
    />
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <button type="button" class="plain-button link short" @click="change({ removeOutput: { output: output.id } })">
      Remove this output
    </button>
  </div>
</template>
