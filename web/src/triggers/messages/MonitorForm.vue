<script setup lang="ts">
import type { Monitor } from '../../api/types'
import DurationField from '../../ui/DurationField.vue'
import TextField from '../../ui/TextField.vue'
import { useEdits } from '../parts/useEdits'

/** A screen that shows the newest cause for a while. */
const { monitor } = defineProps<{ monitor: Monitor }>()
const { problem, change } = useEdits()
const set = (part: Partial<Monitor>) => change({ setMonitor: { monitor: { ...monitor, ...part } } })
</script>

<template>
  <div class="form" :data-monitor="monitor.id">
    <TextField label="Monitor" :value="monitor.name" :maxlength="100" @change="(name) => name && set({ name })" />
    <DurationField
      label="Each showing"
      :value="monitor.dwellSeconds"
      member="monitors.dwellSeconds"
      @change="(dwellSeconds) => set({ dwellSeconds })"
    />
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <button type="button" class="plain-button link short" @click="change({ removeMonitor: { monitor: monitor.id } })">
      Remove this monitor
    </button>
  </div>
</template>
