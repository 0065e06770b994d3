<script setup lang="ts">
import { choices } from '../api/format'
import type { Activity } from '../api/types'
import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'

/** How long the events of an activity last, and how well it is known. */
defineProps<{ activity: Activity }>()
const emit = defineEmits<{ change: [part: Partial<Activity>] }>()
const { activitiesKnown } = choices
</script>

<template>
  <NumberField
    label="An event lasts"
    unit="s"
    :value="activity.meanSeconds"
    member="activities.meanSeconds"
    data-field="mean"
    @change="(meanSeconds) => emit('change', { meanSeconds })"
  />
  <ChoiceField
    label="Known as"
    :value="activity.known"
    :choices="activitiesKnown"
    @change="(known) => emit('change', { known, doubt: undefined })"
  />
</template>
