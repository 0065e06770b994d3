<script setup lang="ts">
import { ElInput, ElOption, ElSelect } from 'element-plus'
import { computed, ref, useId } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { asRead } from '../habits/now'
import { useSite } from '../site/useSite'
import DateField from '../ui/DateField.vue'
import { amount, count, days, three } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import { notice } from '../ui/notice'
import SwitchField from '../ui/SwitchField.vue'
import { readTime } from '../time/clocktext'
import { isoDate } from '../time/dates'

/** Taking footage off: how much of it there is, how long that takes, and a sentence for who asked for it. */
const site = useSite()
const [whoId, fromId, toId] = [useId(), useId(), useId()]
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const wanted = ref<string[]>([])
const picked = computed(() => (wanted.value.length ? wanted.value : cameras.value.map((c) => c.id)))
const date = (back: number) => isoDate(Date.now() - back * 86_400_000)
const [fromDate, toDate] = [ref(date(1)), ref(date(1))]
const [fromTime, toTime] = [ref(asRead('08:00')), ref(asRead('18:00'))]
const events = ref(false)
const usb = ref(30) // MB a second of a stick
const net = ref(100) // Mbit a second of the network
const wrong = computed(() =>
  !readTime(fromTime.value) || !readTime(toTime.value) ? 'A time is written as 08:00.' : '',
)
const { data, failure } = useAnswer(
  () => [
    site.stamp,
    picked.value.join(),
    fromDate.value,
    toDate.value,
    fromTime.value,
    toTime.value,
    events.value,
    usb.value,
    net.value,
  ],
  () =>
    picked.value.length && !wrong.value
      ? api.POST('/api/plans/{id}/takeoff', {
          params: site.here,
          body: {
            channels: picked.value,
            from: `${fromDate.value}T${readTime(fromTime.value)}`,
            to: `${toDate.value}T${readTime(toTime.value)}`,
            eventsOnly: events.value || undefined,
            usbMBps: usb.value,
            networkMbps: net.value,
          },
        })
      : undefined,
  { debounce: 120 },
)
function long(n: number | null) {
  if (n == null) return 'never: the drives have nothing to spare'
  if (n < 1) return 'under a minute'
  return n < 120 ? `${three(n)} min` : `${three(n / 60)} h`
}
const who = computed(() => {
  const all = picked.value.length === cameras.value.length
  if (all) return `all ${count(picked.value.length, 'channel')}`
  return picked.value.length > 3
    ? count(picked.value.length, 'channel')
    : picked.value.map((id) => site.channels.get(id)?.name).join(', ')
})
const day = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
const say = (d: string, t: string) => `${day.format(Date.parse(d))}, ${readTime(t)}`
const sentence = computed(() => {
  const t = data.value
  if (!t) return ''
  return `${events.value ? 'The events' : 'The footage'} of ${who.value} from ${say(fromDate.value, fromTime.value)} to ${say(toDate.value, toTime.value)}: about ${amount(t.gigabytes)}. Copying it takes ${long(t.usbMinutes)} to a USB drive, ${long(t.networkMinutes)} over the network.${t.keptDays == null ? '' : ` It is overwritten ${days(t.keptDays).replace(' d', ' days')} after it was recorded, so ask before then.`}`
})
async function copy() {
  try {
    await navigator.clipboard.writeText(asRead(sentence.value))
    notice('Copied.', { seconds: 2 })
  } catch {
    notice('The browser does not let this page copy; select the sentence instead.', { error: true })
  }
}
</script>

<template>
  <section data-test="take-off">
    <h2>Taking footage off</h2>
    <label :for="whoId">Channels</label>
    <ElSelect
      :id="whoId"
      v-model="wanted"
      multiple
      filterable
      collapse-tags
      :max-collapse-tags="2"
      size="small"
      placeholder="all"
      data-choice="taken"
    >
      <ElOption v-for="c in cameras" :key="c.id" :value="c.id" :label="`${c.number} ${c.name}`" />
    </ElSelect>
    <div class="stretch">
      <DateField label="From" :value="fromDate" @change="(d) => (fromDate = d)" />
      <ElInput :id="fromId" v-model="fromTime" size="small" aria-label="From, time" data-field="from-time" />
      <DateField label="To" :value="toDate" @change="(d) => (toDate = d)" />
      <ElInput :id="toId" v-model="toTime" size="small" aria-label="To, time" data-field="to-time" />
    </div>
    <SwitchField label="Events only" :value="events" @change="(on) => (events = on)" />
    <NumberField
      label="USB drive writes"
      unit="MB/s"
      :value="usb"
      :min="0.1"
      :max="10000"
      data-field="usb"
      @change="(v) => (usb = v)"
    />
    <NumberField
      label="Network carries"
      unit="Mbit/s"
      :value="net"
      :min="0.1"
      :max="100000"
      data-field="net"
      @change="(v) => (net = v)"
    />
    <p v-if="wrong || failure" class="short" role="alert">{{ wrong || failure }}</p>
    <template v-else-if="data">
      <dl class="figures" data-test="taken">
        <dt>expected</dt>
        <dd>
          <b>{{ amount(data.gigabytes) }}</b>
        </dd>
        <dt>to a USB drive</dt>
        <dd>{{ long(data.usbMinutes) }}</dd>
        <dt>over the network</dt>
        <dd>{{ long(data.networkMinutes) }}</dd>
        <dt>drives have to spare</dt>
        <dd>{{ data.spareMBps == null ? 'not known' : `${three(data.spareMBps)} MB/s` }}</dd>
      </dl>
      <p class="soft">
        {{
          data.spareMBps == null
            ? 'What the drives write while they record is not known; the recorder’s “Writes to drives” in Kit says it.'
            : 'Never quicker than what the drives have to spare in the busiest hour, as the recorder goes on recording.'
        }}
      </p>
      <p class="sentence" data-test="sentence">{{ sentence }}</p>
      <button type="button" class="act quiet" @click="copy">Copy the sentence</button>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 6px;
}

.stretch {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 76px;
  gap: 4px 8px;
  align-items: end;
  margin: 6px 0;
}

.el-select {
  width: 100%;
}

.sentence {
  padding: 8px 10px;
  background: var(--band);
  border-radius: 4px;
  user-select: text;
}
</style>
