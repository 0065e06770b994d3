<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { api } from '../../api/client'
import type { DeviceAt } from '../../api/types'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { ago } from '../sheets/ago'
import DeviceLines from './DeviceLines.vue'
import DeviceSetting from './DeviceSetting.vue'
import DeviceWorking from './DeviceWorking.vue'
import type { useDevices } from './useDevices'

/** What a device has and what the plan has: taken into the plan, or set at the device. */
const props = defineProps<{ device: DeviceAt; name: string; devices: ReturnType<typeof useDevices> }>()
defineEmits<{ change: [] }>()
const site = useSite()
const { held, unheld, read, begin, at, may } = props.devices
const chosen = ref<ReadonlySet<string>>(new Set())
const lines = computed(() => held.value?.lines ?? [])
watch(lines, (now) => (chosen.value = new Set(now.map((l) => l.id).filter((id) => !left.has(id)))), { immediate: true })
const left = new Set<string>() // what was taken out by hand
function choose(id: string, on: boolean) {
  if (on) left.delete(id)
  else left.add(id)
  chosen.value = new Set(lines.value.map((l) => l.id).filter((x) => !left.has(x)))
}
function only(ids: string[]) {
  left.clear()
  for (const l of lines.value) if (!ids.includes(l.id)) left.add(l.id)
  chosen.value = new Set(ids)
}
const some = computed(() => lines.value.filter((l) => chosen.value.has(l.id)))
const takes = computed(() => some.value.filter((l) => l.take?.length))
/** What is set as one, such as an encoder, is shown as one: also what of it was not chosen. */
const sets = computed(() => lines.value.filter((l) => l.part && some.value.some((x) => x.part === l.part)))
const setting = ref<'' | 'write' | 'putBack'>('')
const clock = computed(() => {
  const off = Math.round(held.value?.device.clockOffSeconds ?? 0)
  if (Math.abs(off) < 3) return 'clock right'
  const far = Math.abs(off) < 120 ? `${Math.abs(off)} s` : `${Math.round(Math.abs(off) / 60)} min`
  return `clock ${far} ${off > 0 ? 'ahead' : 'behind'}`
})

async function take() {
  const told = await begin(
    api.POST('/api/plans/{id}/devices/{device}/take', {
      params: { path: at(props.device).path },
      body: { lines: takes.value.map((l) => l.id) },
    }),
  )
  if (told) site.change(told.edits)
}
</script>

<template>
  <section :aria-label="name" data-test="device-held">
    <header>
      <h2>{{ name }}</h2>
      <p class="soft">
        {{ [device.made, device.address].filter(Boolean).join(' · ') }}
        <template v-if="device.readAt"> · read {{ ago(device.readAt) }}</template>
        <span v-if="held" :class="{ short: clock !== 'clock right' }"> · {{ clock }}</span>
      </p>
      <p v-if="may" class="acts">
        <button
          type="button"
          class="act"
          :class="{ quiet: device.readAt }"
          :disabled="device.work?.running"
          data-test="device-read"
          @click="read(device)"
        >
          {{ device.readAt ? 'Read it again' : 'Read it' }}
        </button>
        <button type="button" class="act quiet" @click="$emit('change')">How it is reached</button>
      </p>
    </header>
    <DeviceWorking :device="device" :devices="devices" />
    <p v-if="device.trouble && !device.work?.running" class="short" role="alert" data-test="device-trouble">
      {{ device.trouble }}
    </p>
    <p v-if="unheld && device.readAt" class="short" role="alert">{{ unheld }}</p>
    <template v-if="held && device.readAt">
      <div v-if="held.drift.length" class="drift" data-test="drift">
        <h3>Changed at the device since it was set {{ ago(device.writtenAt!) }}</h3>
        <ul>
          <li v-for="l in held.drift" :key="l.id">
            <b>{{ l.about }}</b>, {{ l.what }}: was {{ l.plan }}, is {{ l.device }}
          </li>
        </ul>
      </div>
      <p v-if="!lines.length" class="same" data-test="as-planned">
        All {{ count(held.same, 'channel') }} are as planned, as far as the device tells.
      </p>
      <template v-else>
        <h3>
          {{ count(lines.length, 'difference')
          }}<span class="soft">; {{ count(held.same, 'channel') }} as planned</span>
        </h3>
        <DeviceLines :lines="lines" :chosen="chosen" @choose="choose" @only="only" />
        <p v-if="may" class="acts foot">
          <button
            v-if="site.role === 'planner'"
            type="button"
            class="act"
            :disabled="!takes.length"
            data-test="device-take"
            @click="take"
          >
            Take {{ takes.length }} into the plan
          </button>
          <button
            type="button"
            class="act"
            :disabled="!sets.length || device.work?.running"
            data-test="device-set"
            @click="setting = 'write'"
          >
            Set {{ sets.length }} at the device…
          </button>
        </p>
      </template>
      <DeviceSetting
        v-if="setting"
        :device="device"
        :devices="devices"
        :what="setting"
        :lines="setting === 'write' ? sets : held.back"
        @done="setting = ''"
      />
      <template v-if="held.byHand.length">
        <h3>Otherwise than planned: what the device does not offer, or has no setting for</h3>
        <ul class="hand">
          <li v-for="(h, i) in held.byHand" :key="i">
            <b>{{ site.plan?.channels.find((c) => c.id === h.channel)?.name ?? h.channel }}</b>: {{ h.words }}
          </li>
        </ul>
      </template>
      <template v-if="held.device.unread.length">
        <h3>Not read</h3>
        <ul class="hand">
          <li v-for="(u, i) in held.device.unread" :key="i">
            <b>{{ u.what }}</b>: {{ u.why }}
          </li>
        </ul>
      </template>
      <p v-if="may && held.back.length && device.beforeAt && setting !== 'putBack'" class="acts foot">
        <button type="button" class="act quiet" data-test="put-back" @click="setting = 'putBack'">
          Put back as it was {{ ago(device.beforeAt) }}…
        </button>
      </p>
    </template>
  </section>
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
}

header p {
  margin: 2px 0 8px;
}

.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}

.foot {
  margin: 12px 0;
}

ul {
  margin: 4px 0;
  padding-left: 18px;
}

.drift {
  border-left: 3px solid var(--short);
  padding-left: 12px;
}
</style>
