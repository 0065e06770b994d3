<script setup lang="ts">
import { computed } from 'vue'

import type { DeviceAt } from '../../api/types'
import { count } from '../../ui/figures'
import { ago } from '../sheets/ago'
import type { useDevices } from './useDevices'
import { useGoing } from '../../api/going'

/** What is being done with a device, how far it is, and what came of it. */
const props = defineProps<{ device: DeviceAt; devices: ReturnType<typeof useDevices> }>()
const work = computed(() => props.device.work)
const doing = {
  read: 'Reading',
  write: 'Setting',
  putBack: 'Putting back',
  measure: 'Watching a stream',
  history: 'Reading recordings',
}
const ended = {
  set: 'set, read back',
  otherwise: 'set, and reads back otherwise',
  refused: 'refused',
  not: 'not set',
}
const set = computed(() => (work.value?.running ? [] : (work.value?.set ?? [])))
useGoing(
  {
    get what() {
      return work.value ? doing[work.value.what] : ''
    },
    percent: () => (work.value?.of ? (100 * work.value.done) / work.value.of : undefined),
    stop: props.devices.may.value ? () => void props.devices.stop(props.device) : undefined,
  },
  () => !!work.value?.running,
)
const right = computed(() => set.value.filter((s) => s.ended === 'set').length)
</script>

<template>
  <div v-if="work?.running" class="working" role="status" data-test="working">
    <span>{{ doing[work.what] }}{{ work.at ? `: ${work.at}` : '' }}</span>
    <progress :value="work.of ? work.done : undefined" :max="work.of || 1" :aria-label="doing[work.what]" />
    <span class="soft">by {{ work.author }}</span>
    <button v-if="devices.may.value" type="button" class="act quiet" @click="devices.stop(device)">Stop</button>
  </div>
  <div v-else-if="set.length" class="came" data-test="came">
    <h3>
      {{ work!.what === 'write' ? 'Set' : 'Put back' }} {{ ago(work!.began) }} by {{ work!.author }}: {{ right }} of
      {{ count(set.length, 'setting') }} as wanted
    </h3>
    <ul v-if="right < set.length">
      <template v-for="s in set" :key="s.part">
        <li v-if="s.ended !== 'set'">
          <b>{{ s.about }}</b>, {{ s.what }}: <span class="short">{{ ended[s.ended] }}</span>{{
            s.why ? `. ${s.why}` : ''
          }}
          <span v-for="l in s.left" :key="l.id" class="soft block"
            >{{ l.what }}: wanted {{ l.plan }}, is {{ l.device }}</span
          >
        </li>
      </template>
    </ul>
    <p v-if="right < set.length" class="soft">
      What is otherwise stands among the differences: try it again, or take what the device has into the plan.
    </p>
  </div>
</template>

<style scoped>
.working {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 8px 0;
}

.block {
  display: block;
}

ul {
  padding-left: 18px;
  margin: 4px 0;
}
</style>
