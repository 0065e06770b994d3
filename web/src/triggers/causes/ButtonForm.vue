<script setup lang="ts">
import { ElOption, ElSelect } from 'element-plus'
import { computed, useId } from 'vue'

import { choices } from '../../api/format'
import type { CallButton } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import DurationField from '../../ui/DurationField.vue'
import NumberField from '../../ui/NumberField.vue'
import TextField from '../../ui/TextField.vue'
import { useEdits } from '../parts/useEdits'

/** A button that somebody presses, and what it records by itself. */
const { button } = defineProps<{ button: CallButton }>()
const site = useSite()
const id = useId()
const { problem, change } = useEdits()
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const set = (part: Partial<CallButton>) => change({ setCallButton: { callButton: { ...button, ...part } } })
</script>

<template>
  <div class="form" :data-button="button.id">
    <TextField label="Button" :value="button.name" :maxlength="100" @change="(name) => name && set({ name })" />
    <NumberField
      label="Pressed"
      unit="a week"
      :value="button.pressesPerWeek"
      member="callButtons.pressesPerWeek"
      @change="(pressesPerWeek) => set({ pressesPerWeek })"
    />
    <DurationField
      label="Records for"
      :value="button.holdSeconds"
      member="callButtons.holdSeconds"
      @change="(holdSeconds) => set({ holdSeconds })"
    />
    <ChoiceField
      label="Records of it"
      :value="button.stream ?? 'main'"
      :choices="choices.streams.value"
      @change="(stream) => set({ stream: stream === 'main' ? undefined : stream })"
    />
    <NumberField
      label="Frames"
      unit="/s"
      :value="button.fps ?? 0"
      none="all"
      member="callButtons.fps"
      @change="(fps) => set({ fps: fps || undefined })"
    />
    <label :for="id">Records, whatever the duty</label>
    <ElSelect
      :id="id"
      :model-value="button.records ?? []"
      multiple
      filterable
      collapse-tags
      :max-collapse-tags="3"
      size="small"
      placeholder="no channel"
      data-choice="records"
      @change="(records: string[]) => set({ records })"
    >
      <ElOption v-for="c in cameras" :key="c.id" :value="c.id" :label="`${c.number} ${c.name}`" />
    </ElSelect>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <button
      type="button"
      class="plain-button link short"
      @click="change({ removeCallButton: { callButton: button.id } })"
    >
      Remove this button, with its ties
    </button>
  </div>
</template>
