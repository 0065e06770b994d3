<script setup lang="ts">
import { computed, ref } from 'vue'

import { choices } from '../../api/format'
import type { Alerts, Channel, Stills } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import DurationField from '../../ui/DurationField.vue'
import { amount, three } from '../../ui/figures'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import { readSize } from '../../ui/size'
import TextField from '../../ui/TextField.vue'
import MendButton from '../../findings/MendButton.vue'
import { useEffects } from '../../findings/useEffects'
import { useEdits } from '../parts/useEdits'
import TermTip from '../../ui/TermTip.vue'

/** The settings of snapshots that must agree, a row for each channel, with what they come to and what is missing. */
const { alerts } = defineProps<{ alerts: Alerts | undefined }>()
const site = useSite()
const { problem, change } = useEdits()
const sizeProblem = ref<{ channel: string; why: string }>()
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const taking = computed(() => cameras.value.filter((c) => c.stills))
const others = computed(() =>
  cameras.value.filter((c) => !c.stills).map((c) => [c.id, `${c.number} ${c.name}`] as const),
)
const set = (c: Channel, part: Partial<Stills>) =>
  change({ setStills: { channels: [c.id], stills: { ...c.stills!, ...part } } })
const hours = (c: Channel) => alerts?.hours.stills?.find((s) => s.channel === c.id)
const missing = (c: Channel) => site.findings.find((f) => f.rule === 'stills-incomplete' && f.channel === c.id)
const tried = useEffects(() => taking.value.flatMap((c) => missing(c) ?? []))
const messages = (c: Channel) =>
  (site.plan?.messages ?? []).filter(
    (m) => m.still && site.plan?.effects?.some((e) => e.when.motion === c.id && e.message?.includes(m.id)),
  )
function start(id: string) {
  const main = site.channels.get(id)?.streams?.main
  const isSmall = main && main.width < 1280
  const size = isSmall ? { width: main.width, height: main.height } : { width: 1280, height: 720 }
  change({ setStills: { channels: [id], stills: { mode: 'trigger', everySeconds: 5, quality: 3, ...size } } })
}
function resize(c: Channel, text: string) {
  const read = readSize(text)
  sizeProblem.value = 'why' in read ? { channel: c.id, why: read.why } : undefined
  if (!('why' in read)) set(c, read)
}
const total = computed(() => (alerts?.hours.stills ?? []).reduce((sum, s) => sum + s.gigabytesPerDay, 0))
</script>

<template>
  <section data-test="stills">
    <h2><TermTip word="snapshot">Snapshots</TermTip></h2>
    <p v-if="!taking.length" class="soft">No channel takes snapshots. They share the pool with its footage.</p>
    <p v-else>
      <b>{{ amount(total) }} a day</b> in all, counted in the days kept.
    </p>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <article v-for="c in taking" :key="c.id" class="row" :data-stills="c.id">
      <h3>{{ c.number }} {{ c.name }}</h3>
      <ChoiceField
        label="Taken"
        :value="c.stills!.mode"
        :choices="choices.stillModes.value"
        @change="(mode) => set(c, { mode })"
      />
      <DurationField
        :label="c.stills!.mode === 'timed' ? 'Every' : 'At most one every'"
        :value="c.stills!.everySeconds"
        member="channels.stills.everySeconds"
        @change="(everySeconds) => set(c, { everySeconds })"
      />
      <TextField
        label="Resolution"
        :value="`${c.stills!.width}×${c.stills!.height}`"
        :choices="choices.sizes.value"
        :problem="sizeProblem?.channel === c.id ? sizeProblem.why : undefined"
        @change="(text) => resize(c, text)"
      />
      <ChoiceField
        v-if="c.stills!.quality"
        label="Quality"
        :value="c.stills!.quality"
        :choices="choices.qualities.value"
        @change="(quality) => set(c, { quality, kilobytes: undefined })"
      />
      <NumberField
        label="Measured size"
        unit="kB"
        :value="c.stills!.kilobytes"
        member="channels.stills.kilobytes"
        optional
        @change="(kilobytes) => set(c, { kilobytes, quality: undefined })"
        @clear="set(c, { kilobytes: undefined, quality: 3 })"
      />
      <HoursField
        label="Hours"
        empty="always"
        :value="c.stills!.hours?.blocks"
        @change="(blocks) => set(c, { hours: blocks.length ? { blocks } : undefined })"
      />
      <p class="sum">
        <template v-if="hours(c)"
          ><b data-test="stills-per-day">{{ three(site.figures.get(c.id)?.stillsPerDay ?? 0) }}</b> a day of
          {{ three(hours(c)!.kilobytes) }} kB: <b>{{ amount(hours(c)!.gigabytesPerDay) }}</b> a day<template
            v-if="messages(c).length"
            >; with
            {{
              messages(c)
                .map((m) => m.name)
                .join(', ')
            }}</template
          >.</template
        >
        <template v-if="missing(c)">
          <b class="short">{{ missing(c)!.sentence }}</b>
          <MendButton :finding="missing(c)!" :tried="tried" />
        </template>
        <button type="button" class="plain-button link short" @click="change({ setStills: { channels: [c.id] } })">
          No snapshots
        </button>
      </p>
    </article>
    <ChoiceField
      v-if="others.length"
      class="start"
      label="Take snapshots on"
      :value="undefined"
      :choices="others"
      @change="start"
    />
  </section>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 22px;
  padding: 6px 0 8px;
  border-bottom: 1px solid var(--rule);
}

h3,
.sum {
  grid-column: 1 / -1;
  margin: 0 0 2px;
  font-size: inherit;
}

.sum {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}

.sum > .link {
  margin-left: auto;
}

.start {
  max-width: 320px;
  margin-top: 8px;
}

@media (max-width: 900px) {
  .row {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
