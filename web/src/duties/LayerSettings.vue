<script setup lang="ts">
import { computed } from 'vue'

import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'
import { kindOfSettings, settingsKinds, type Settings } from './settings'

/** What a layer asks for beside its frames, of a recorder whose settings change by the hour. */
const { settings, layer } = defineProps<{ settings: Settings; layer: 'base' | 'event' }>()
const emit = defineEmits<{ change: [settings: Settings] }>()
const kind = computed(() => kindOfSettings(settings))
const begin = { same: {}, quality: { quality: -1 }, percent: { percent: 50 } } as const
</script>

<template>
  <ChoiceField label="Bitrate" :value="kind" :choices="settingsKinds" @change="(k) => emit('change', begin[k])" />
  <NumberField
    v-if="kind === 'quality'"
    label="Steps of quality, −4 to 4"
    :value="settings.quality ?? 0"
    :member="`duties.${layer}.quality`"
    @change="(quality) => emit('change', { quality: Math.round(quality) || undefined })"
  />
  <NumberField
    v-if="kind === 'percent'"
    label="Of the stream's bitrate"
    unit="%"
    :value="settings.percent ?? 100"
    :member="`duties.${layer}.percent`"
    @change="(percent) => emit('change', { percent })"
  />
</template>
