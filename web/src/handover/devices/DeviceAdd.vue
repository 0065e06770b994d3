<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask } from '../../api/ask'
import { api } from '../../api/client'
import type { DeviceAt, DeviceFound } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import SwitchField from '../../ui/SwitchField.vue'
import TextField from '../../ui/TextField.vue'
import type { useDevices } from './useDevices'

/** How a device is reached: found on a network, or its address typed; and who asks it. */
const props = defineProps<{
  device?: DeviceAt
  devices: ReturnType<typeof useDevices>
  keeps: boolean
  first: boolean
}>()
const emit = defineEmits<{ kept: [id: string]; leave: [] }>()
const site = useSite()
const known = computed(() => new Set(props.devices.list.value.map((d) => d.recorder)))
const recorders = computed(() => site.plan?.recorders ?? [])
const typed = ref({
  of: props.device
    ? props.device.recorder
      ? `r ${props.device.recorder}`
      : `c ${props.device.channel}`
    : `r ${(recorders.value.find((r) => !known.value.has(r.id)) ?? recorders.value[0])?.id ?? ''}`,
  address: props.device?.address ?? '',
  user: props.device?.user ?? '',
  password: undefined as string | undefined,
  daily: props.device?.daily ?? true,
})
const whose = computed(() => [
  ...recorders.value.map((r) => [`r ${r.id}`, `Recorder ${r.name}`] as const),
  ...(site.plan?.channels ?? [])
    .filter((c) => !c.noCamera)
    .map((c) => [`c ${c.id}`, `Camera of ${c.number} ${c.name}`] as const),
])
const planned = computed(() => {
  const [kind, id] = [typed.value.of.slice(0, 1), typed.value.of.slice(2)]
  return kind === 'r'
    ? recorders.value.find((r) => r.id === id)?.address
    : site.plan?.channels.find((c) => c.id === id)?.address
})
const problem = ref('')
const asking = ref(false)
const certificate = ref<{ fingerprint: string; why: string }>()

async function keep(fingerprint = '') {
  asking.value = true
  problem.value = ''
  const told = await ask(
    api.POST('/api/plans/{id}/devices', {
      params: { ...site.here, header: {} },
      body: {
        id: props.device?.id,
        [typed.value.of.startsWith('r') ? 'recorder' : 'channel']: typed.value.of.slice(2),
        address: typed.value.address || planned.value || '',
        user: typed.value.user || undefined,
        password: props.device && typed.value.password === undefined ? undefined : (typed.value.password ?? ''),
        fingerprint: fingerprint || undefined,
        daily: typed.value.daily,
      },
    }),
  )
  asking.value = false
  problem.value = told.problem
  certificate.value = undefined
  if (!told.data) return
  if (told.data.id) {
    // The form may be gone by now: the list has the new one as soon as the server has.
    if (!props.device) void props.devices.read({ id: told.data.id })
    emit('kept', told.data.id)
  } else certificate.value = { fingerprint: told.data.fingerprint ?? '', why: told.data.why ?? '' }
}

const network = ref('')
const searching = ref(false)
const found = ref<DeviceFound[]>()
const unfound = ref('')
async function find() {
  searching.value = true
  found.value = undefined
  const told = await ask(
    api.POST('/api/plans/{id}/devices/find', { params: site.here, body: { network: network.value } }),
  )
  searching.value = false
  unfound.value = told.problem
  found.value = told.data
}
function choose(f: DeviceFound) {
  typed.value.address = f.address
  if (f.recorder) typed.value.of = `r ${f.recorder}`
  if (f.channel) typed.value.of = `c ${f.channel}`
}
</script>

<template>
  <section aria-label="How a device is reached" data-test="device-form">
    <h2>{{ device ? 'How it is reached' : 'Add a device' }}</h2>
    <p class="soft">
      A recorder or a camera that speaks ONVIF is read, held against the plan, and set as planned. Nothing is set that
      was not shown before.
    </p>
    <form @submit.prevent="keep()">
      <ChoiceField label="It is" :value="typed.of" :choices="whose" @change="(v: string) => (typed.of = v)" />
      <TextField
        label="Address"
        :value="typed.address"
        :placeholder="planned || '10.0.4.20, or https://recorder.lan:8443'"
        @change="(v: string) => (typed.address = v)"
      />
      <TextField label="User" :value="typed.user" @change="(v: string) => (typed.user = v)" />
      <div class="field">
        <label for="device-password">Password</label>
        <input
          id="device-password"
          type="password"
          autocomplete="new-password"
          :placeholder="device ? 'as it is kept' : ''"
          @change="typed.password = ($event.target as HTMLInputElement).value"
        />
      </div>
      <SwitchField
        label="Look once a day whether it is as it was set"
        :value="typed.daily"
        @change="(v: boolean) => (typed.daily = v)"
      />
      <p v-if="!keeps" class="short">
        This server keeps no passwords: it was started without a key for them. Devices that ask for none can be added.
      </p>
      <p v-if="problem" class="short" role="alert" data-test="device-problem">{{ problem }}</p>
      <div v-if="certificate" class="certificate" role="alert" data-test="certificate">
        <p>Its certificate is not trusted: {{ certificate.why }}. SHA-256 fingerprint:</p>
        <code>{{ certificate.fingerprint }}</code>
        <p>Hold it against what the device shows. If it is the same, nobody listens in between.</p>
        <button type="button" class="act" @click="keep(certificate.fingerprint)">It is the same, go on</button>
      </div>
      <p class="acts">
        <button type="submit" class="act" :disabled="asking" data-test="device-keep">
          {{ asking ? 'Asking it…' : device ? 'Ask it, and keep this' : 'Ask it, and read it' }}
        </button>
        <button v-if="!first" type="button" class="act quiet" @click="emit('leave')">Leave it</button>
      </p>
    </form>
    <template v-if="!device">
      <h3>Or look who is there</h3>
      <form class="find" @submit.prevent="find">
        <TextField label="Network" :value="network" placeholder="10.0.4.0/24" @change="(v) => (network = v)" />
        <button type="submit" class="act quiet" :disabled="searching || !network">
          {{ searching ? 'Listening for answers…' : 'Look' }}
        </button>
      </form>
      <p v-if="unfound" class="short" role="alert">{{ unfound }}</p>
      <p v-else-if="found && !found.length" class="soft">
        Nothing answered there. Devices that do not answer to discovery are reached by their address.
      </p>
      <ul v-if="found?.length" data-test="device-found">
        <li v-for="f in found" :key="f.address">
          <button type="button" class="plain-button" @click="choose(f)">{{ f.address }}</button>
          <span class="soft">{{ [f.name, f.hardware].filter(Boolean).join(', ') }}</span>
          <span v-if="f.known" class="soft">is among the devices</span>
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
form {
  max-width: 380px;
}

h3 {
  margin-top: 24px;
}

.field {
  display: grid;
  grid-template-columns: minmax(112px, 1fr) minmax(120px, var(--word));
  gap: 2px 6px;
  align-items: center;
  min-height: var(--row);
}

.find {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
}

.acts {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}

code {
  overflow-wrap: anywhere;
}

.certificate {
  border-left: 3px solid var(--short);
  padding-left: 12px;
}
</style>
