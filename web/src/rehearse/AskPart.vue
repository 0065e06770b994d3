<script setup lang="ts">
import { ElInput, ElOption, ElSelect } from 'element-plus'
import { computed, ref, useId, watch } from 'vue'

import { asRead } from '../habits/now'
import { useSite } from '../site/useSite'
import { momentOf, secondsOf, tookInstead } from './clock'
import { readTime } from '../time/clocktext'
import HaveAnswer from './HaveAnswer.vue'
import type { Rehearsing } from './useRehearsal'
import { joined, parted } from '../site/asText'
import { useInAddress } from '../site/useInAddress'

/** Would we have it: a channel and a moment, or a stretch; the answer, and in how many of 200 rehearsals. */
const { r, asked = undefined } = defineProps<{ r: Rehearsing; asked?: { channel: string; at: number } }>()
const emit = defineEmits<{ about: [channel: string] }>()
const site = useSite()
const id = useId()
const channel = ref('')
const at = ref(36_000)
const long = ref(0) // seconds of a stretch; 0 for a moment
const day = ref(0)
const time = ref(asRead('10:00'))
const wrong = ref('')
const took = ref('') // of a time that clocks leave out or show twice
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
useInAddress(
  'ask',
  computed({
    get: () => (channel.value ? joined([channel.value, at.value, long.value]) : undefined),
    set: (text) => {
      const [c, moment, stretch] = parted(text)
      if (!c || !site.channels.has(c) || !(Number(moment) >= 0)) return
      channel.value = c
      at.value = Number(moment)
      long.value = Number(stretch) || 0
    },
  }),
)
watch(
  () => asked,
  (a) => {
    if (!a) return
    channel.value = a.channel
    at.value = a.at
    took.value = '' // a moment that is pointed at is no time that was typed
  },
  { immediate: true },
)
watch(cameras, (list) => (channel.value ||= list[0]?.id ?? ''), { immediate: true })
watch(channel, (id) => emit('about', id), { immediate: true })

const clock = /^([01]?\d|2[0-3])[:.]?([0-5]\d)(?:[:.]?([0-5]\d))?$/ // with seconds, where they are said
/** Takes a day and a time of day as people type it. */
function ask() {
  const typed = time.value.trim()
  const m = clock.exec(typed) ?? clock.exec((readTime(typed) ?? '') + (/^\d+:\d\d(:\d\d)/.exec(typed)?.[1] ?? ''))
  wrong.value = m ? '' : asRead('A time is written as 08:00 or 08:00:30.')
  const d = r.data.value?.days[day.value]
  if (!m || !d) return
  const seconds = 3600 * Number(m[1]) + 60 * Number(m[2]) + Number(m[3] ?? 0)
  at.value = secondsOf(d, seconds)
  took.value = tookInstead(d, seconds)
}
</script>

<template>
  <section data-test="ask">
    <h2>Would we have it?</h2>
    <label :for="id">Channel</label>
    <ElSelect :id="id" v-model="channel" filterable size="small" data-choice="asked">
      <ElOption v-for="c in cameras" :key="c.id" :value="c.id" :label="`${c.number} ${c.name}`" />
    </ElSelect>
    <form class="when" @submit.prevent="ask">
      <ElSelect v-model="day" size="small" aria-label="Day">
        <ElOption
          v-for="(d, k) in r.data.value?.days ?? []"
          :key="d.date"
          :value="k"
          :label="momentOf(r.data.value!, d.from).slice(0, -9)"
        />
      </ElSelect>
      <ElInput v-model="time" size="small" aria-label="Time" data-field="ask-time" />
      <ElSelect v-model="long" size="small" aria-label="For how long">
        <ElOption :value="0" label="that moment" />
        <ElOption :value="60" label="for 1 min" />
        <ElOption :value="600" label="for 10 min" />
        <ElOption :value="3600" label="for 1 h" />
      </ElSelect>
      <button type="submit" class="act" data-test="ask-it">Ask</button>
    </form>
    <p v-if="wrong" class="short" role="alert">{{ wrong }}</p>
    <p v-if="took" data-test="took">{{ took }}</p>
    <HaveAnswer v-if="!wrong" :r="r" :channel="channel" :at="at" :to="long ? at + long : undefined" />
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 6px;
}

.when {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) 74px minmax(0, 1fr) auto;
  gap: 6px;
  margin: 6px 0;
}
</style>
