<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'

import { isWeekend } from '../../forms/daysMeant'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { DAY, dayNames, weekdays, type Span } from '../../time/week'
import { useCopy } from '../copying/useCopy'
import { useHand } from '../../hand/useHand'

/**
 * A day's heading with what can be done with the whole day: on the channels selected. What copying would change is
 * counted as soon as it is pointed at.
 */
const props = defineProps<{ day: number }>()
const emit = defineEmits<{ paint: [channels: string[], span: Span] }>()
const site = useSite()
const hand = useHand()
const copy = useCopy()

const channels = computed(() => hand.selection.filter((id) => !site.channels.get(id)?.noCamera))
const name = computed(() => dayNames[props.day]!)
const duty = computed(() => site.duties.get(hand.duty)?.name ?? '')
const rest = computed(() => [0, 1, 2, 3, 4, 5, 6].filter((d) => d !== props.day))
const onto = (days: number[]) => copy.day(channels.value, props.day, days, 'Click to copy.')
const consider = (days: number[]) => copy.consider(onto(days))
const leave = (open: boolean) => open || copy.consider(undefined)
const working = computed(() => rest.value.filter((d) => !isWeekend(d)))

function act(command: 'closer' | 'paint' | 'take' | number[]) {
  if (command === 'closer') hand.day = hand.day === undefined ? props.day : undefined
  else if (command === 'paint') emit('paint', channels.value, { from: props.day * DAY, to: (props.day + 1) * DAY })
  else if (command === 'take') copy.copy({ channel: channels.value[0]!, day: props.day })
  else copy.doIt(onto(command))
}
</script>

<template>
  <ElDropdown trigger="click" placement="bottom-start" :persistent="false" @command="act" @visible-change="leave">
    <button
      type="button"
      class="plain-button day"
      :data-day="weekdays[day]"
      :title="`What can be done with the whole of ${name}; drag it onto other days to copy it`"
    >
      {{ name.slice(0, 3) }}
    </button>
    <template #dropdown>
      <ElDropdownMenu>
        <ElDropdownItem command="closer">{{
          hand.day === undefined ? `Look closer at ${name}` : 'Back to the whole week'
        }}</ElDropdownItem>
        <ElDropdownItem v-if="!channels.length" disabled divided
          >Select channels first: this acts on those selected</ElDropdownItem
        >
        <template v-else>
          <ElDropdownItem disabled divided>{{ name }}, on {{ count(channels.length, 'channel') }}</ElDropdownItem>
          <ElDropdownItem command="paint">Paint all day: {{ duty }}</ElDropdownItem>
          <ElDropdownItem command="take">Copy it; Ctrl+V puts it where the cursor is</ElDropdownItem>
          <ElDropdownItem :command="working" divided @mouseenter="consider(working)" @focus="consider(working)"
            >Copy onto {{ !isWeekend(day) ? 'the other working days' : 'Monday to Friday' }}</ElDropdownItem
          >
          <ElDropdownItem :command="rest" @mouseenter="consider(rest)" @focus="consider(rest)"
            >Copy onto every day</ElDropdownItem
          >
          <ElDropdownItem
            v-for="d in rest"
            :key="d"
            :command="[d]"
            :divided="d === rest[0]"
            @mouseenter="consider([d])"
            @focus="consider([d])"
            >Copy onto {{ dayNames[d] }}</ElDropdownItem
          >
        </template>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>

<style scoped>
.day {
  font-weight: 600;
}

.day:hover {
  color: var(--base);
}
</style>
