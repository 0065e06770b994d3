<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'

import { api } from '../../api/client'
import type { DeviceAt, DeviceLine } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import type { useDevices } from './useDevices'

/** What will be set, from → to, before it is: nothing is set that does not stand here. */
const props = defineProps<{
  device: DeviceAt
  devices: ReturnType<typeof useDevices>
  what: 'write' | 'putBack'
  lines: DeviceLine[]
}>()
const emit = defineEmits<{ done: [] }>()
const site = useSite()
const { held, begin, at } = props.devices
const shown = [...props.lines]
const parts = computed(() => [...new Set(shown.map((l) => l.part ?? '').filter(Boolean))])
const asked = { version: held.value!.version, readAt: held.value!.readAt } // as it is shown here
const first = ref<HTMLElement>()
onMounted(() => nextTick(() => first.value?.focus()))

async function go() {
  const body = { ...asked, parts: parts.value }
  const params = at(props.device)
  if (props.what === 'write') await begin(api.POST('/api/plans/{id}/devices/{device}/write', { params, body }))
  else await begin(api.POST('/api/plans/{id}/devices/{device}/put-back', { params, body }))
  emit('done')
}
</script>

<template>
  <section class="setting" aria-label="What will be set" data-test="setting">
    <h3 ref="first" tabindex="-1">
      {{ what === 'write' ? 'This will be set at' : 'This will be put back at' }}
      {{ site.plan?.recorders.find((r) => r.id === device.recorder)?.name ?? device.address }}
    </h3>
    <ul>
      <li v-for="l in shown" :key="l.id">
        <b>{{ l.about }}</b>, {{ l.what }}: {{ l.device }} <span aria-label="becomes">→</span> {{ l.plan }}
      </li>
    </ul>
    <p class="soft">
      {{ count(parts.length, 'setting') }} in turn, each read back. It can be stopped; what was set until then stays,
      and can be put back.
    </p>
    <p class="acts">
      <button type="button" class="act" data-test="set-now" @click="go">
        {{ what === 'write' ? 'Set it now' : 'Put it back now' }}
      </button>
      <button type="button" class="act quiet" @click="emit('done')">Leave it as it is</button>
    </p>
  </section>
</template>

<style scoped>
.setting {
  border: 1px solid var(--rule);
  border-radius: 6px;
  padding: 8px 14px;
  margin: 12px 0;
}

.acts {
  display: flex;
  gap: 8px;
}

ul {
  padding-left: 18px;
}
</style>
