<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import { DAY, dayNames, weekdays, type Span } from './time'
import { useHand } from './useHand'

/** A day's heading with what can be done with the whole day: on the channels selected. */
const props = defineProps<{ day: number }>()
const emit = defineEmits<{ paint: [channels: string[], span: Span] }>()
const site = useSite()
const hand = useHand()

const channels = computed(() => hand.selection.filter((id) => !site.channels.get(id)?.noCamera))
const name = computed(() => dayNames[props.day]!)
const duty = computed(() => site.duties.get(hand.duty)?.name ?? '')
const rest = computed(() => [0, 1, 2, 3, 4, 5, 6].filter((d) => d !== props.day))
const working = computed(() => rest.value.filter((d) => d < 5))

function copy(days: number[]) {
  site.change([{ copyDay: { channels: channels.value, from: weekdays[props.day]!, to: days.map((d) => weekdays[d]!) } }])
}

function act(command: 'closer' | 'paint' | 'working' | 'rest' | number) {
  if (command === 'closer') hand.day = hand.day === undefined ? props.day : undefined
  else if (command === 'paint') emit('paint', channels.value, { from: props.day * DAY, to: (props.day + 1) * DAY })
  else copy(command === 'working' ? working.value : command === 'rest' ? rest.value : [command])
}
</script>

<template>
  <ElDropdown trigger="click" placement="bottom-start" @command="act">
    <button type="button" class="plain-button day" :data-day="weekdays[day]" :title="`What can be done with the whole of ${name}`">{{ name.slice(0, 3) }}</button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem command="closer">{{ hand.day === undefined ? `Look closer at ${name}` : 'Back to the whole week' }}</ElDropdownItem>
        <ElDropdownItem v-if="!channels.length" disabled divided>Select channels first: this acts on those selected</ElDropdownItem>
        <template v-else>
          <ElDropdownItem disabled divided>{{ name }}, on {{ count(channels.length, 'channel') }}</ElDropdownItem>
          <ElDropdownItem command="paint">Paint all day: {{ duty }}</ElDropdownItem>
          <ElDropdownItem command="working" divided>Copy onto {{ day < 5 ? 'the other working days' : 'Monday to Friday' }}</ElDropdownItem>
          <ElDropdownItem command="rest">Copy onto every day</ElDropdownItem>
          <ElDropdownItem v-for="d in rest" :key="d" :command="d" :divided="d === rest[0]">Copy onto {{ dayNames[d] }}</ElDropdownItem>
        </template>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.day {
  font-weight: 700;
}

.day:hover {
  text-decoration: underline;
}
</style>
