<script setup lang="ts">
import type { Message } from '../../api/types'
import DurationField from '../../ui/DurationField.vue'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import SwitchField from '../../ui/SwitchField.vue'
import TextField from '../../ui/TextField.vue'
import { useEdits } from '../parts/useEdits'

/** What one receiver is told. */
const { message } = defineProps<{ message: Message }>()
const { problem, change } = useEdits()
const set = (part: Partial<Message>) => change({ setMessage: { message: { ...message, ...part } } })
</script>

<template>
  <div class="form" :data-message="message.id">
    <TextField label="Message" :value="message.name" :maxlength="100" @change="(name) => name && set({ name })" />
    <TextField label="To" :value="message.to" @change="(to) => to && set({ to })" />
    <DurationField
      label="At most one every"
      :value="message.atMostEverySeconds"
      member="messages.atMostEverySeconds"
      @change="(atMostEverySeconds) => set({ atMostEverySeconds })"
    />
    <HoursField
      label="Goes out"
      empty="always"
      :value="message.hours?.blocks"
      @change="(blocks) => set({ hours: blocks.length ? { blocks } : undefined })"
    />
    <SwitchField label="With a snapshot" :value="message.still" @change="(still) => set({ still })" />
    <NumberField
      label="Read at most"
      unit="a day"
      :value="message.mostPerDay ?? 30"
      member="messages.mostPerDay"
      @change="(mostPerDay) => set({ mostPerDay })"
    />
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <button type="button" class="plain-button link short" @click="change({ removeMessage: { message: message.id } })">
      Remove this message
    </button>
  </div>
</template>
