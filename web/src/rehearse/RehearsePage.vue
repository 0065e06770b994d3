<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed, ref, useTemplateRef, watch } from 'vue'

import { useSite } from '../site/useSite'
import { writeDate } from '../ui/date'
import DateField from '../ui/DateField.vue'
import { fileWords, gigabytes, whole } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import TabBar from '../ui/TabBar.vue'
import AskPart from './AskPart.vue'
import BesidePart from './BesidePart.vue'
import { momentOf } from './clock'
import EventList from './EventList.vue'
import EventStory from './EventStory.vue'
import OverView from './OverView.vue'
import TimeLine from './TimeLine.vue'
import FindBar from './FindBar.vue'
import { useRehearsal } from './useRehearsal'
import WatchPart from './WatchPart.vue'
import WorstPart from './WorstPart.vue'
import TermTip from '../ui/TermTip.vue'
import { wordText } from '../site/asText'
import { useInAddress } from '../site/useInAddress'

/** Days played out before anyone drives there: what happened, what the plan did with it, and questions about it. */
const site = useSite()
const r = useRehearsal()
const { from, days, number, data, failure, asking, go, another } = r
const parts = [
  ['story', 'Event'],
  ['ask', 'Ask'],
  ['worst', 'Worst'],
  ['watch', 'Watch'],
  ['beside', 'Before'],
  ['list', 'List'],
] as const
const part = ref<(typeof parts)[number][0]>('story')
useInAddress(
  'tab',
  wordText(
    part,
    parts.map(([id]) => id),
    'story',
  ),
)
const about = ref('') // the channel that is asked about
const asked = ref<{ channel: string; at: number }>()
watch(r.pointed, (p) => p && part.value !== 'list' && (part.value = 'story'))
function moment(channel: string, at: number) {
  asked.value = { channel, at }
  part.value = 'ask'
}
const sums = computed(() => data.value?.sums)
const hasActivity = computed(() => (site.plan?.channels ?? []).some((c) => c.activity))
const file = (kind: string) =>
  location.assign(
    `/api/plans/${site.planId}/rehearse/file?kind=${kind}&from=${from.value}&days=${days.value}&number=${number.value}`,
  )
/** The timeline as a picture for the customer: the stretch that is seen, with all its rows. */
const line = useTemplateRef('line')
function picture() {
  const plan = site.plan!
  const stretch =
    data.value && `${momentOf(data.value, r.view.value.from)} to ${momentOf(data.value, r.view.value.to - 1)}`
  const played = `Made-up days from ${writeDate(from.value)}, number ${number.value}`
  const url = line.value?.picture(`${plan.site.name}, ${plan.name}: what would be on disk`, `${stretch} · ${played}`)
  if (!url) return
  const link = document.createElement('a')
  link.href = url
  link.download = `${fileWords(plan.site.name)}, ${fileWords(plan.name)}, rehearsal from ${from.value} number ${number.value}.png`
  link.click()
}
const save = (kind: string) => (kind === 'png' ? picture() : file(kind))
</script>

<template>
  <div class="rehearse" data-test="rehearse">
    <header>
      <h1 class="visually-hidden">Rehearse</h1>
      <TermTip word="rehearsal">Made-up days</TermTip> <span aria-hidden="true">from</span>
      <DateField label="From" :value="from" @change="(d) => go({ from: d })" />
      <NumberField
        label="Days"
        :value="days"
        :min="1"
        :max="14"
        whole
        data-field="days"
        @change="(d) => go({ days: d })"
      />
      <NumberField
        label="Number"
        :value="number"
        :min="1"
        :max="4294967295"
        whole
        data-field="number"
        @change="(n) => go({ number: n })"
      />
      <button type="button" class="act" data-test="another" @click="another">Another week</button>
      <ElDropdown trigger="click" :persistent="false" @command="save">
        <button type="button" class="act quiet" data-test="save-week">Save</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem command="csv">What happened, as CSV</ElDropdownItem>
            <ElDropdownItem command="xlsx">What happened, as XLSX</ElDropdownItem>
            <ElDropdownItem command="ics">Events, as a calendar</ElDropdownItem>
            <ElDropdownItem command="json">Footage, as JSON</ElDropdownItem>
            <ElDropdownItem command="png">The timeline, as a picture</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <button
        v-for="o in data?.others ?? []"
        :key="o.name"
        type="button"
        class="plain-button link"
        :title="`The week of ${o.from}`"
        data-test="other-week"
        @click="go({ from: o.from, days: 7 })"
      >
        {{ o.name }}
      </button>
      <p v-if="sums && !failure" class="sums" data-test="sums">
        <b>{{ whole(sums.wanted) }}</b> wanted {{ sums.wanted === 1 ? 'event' : 'events' }}: {{ whole(sums.full) }} kept
        in full, {{ whole(sums.low) }} low, <b :class="{ short: sums.missed }">{{ whole(sums.missed) }} missed</b>;
        {{ whole(sums.unwanted) }} unwanted triggers; {{ gigabytes(sums.gigabytes)
        }}<template v-if="data?.messages?.length"
          >; {{ sums.messages === 1 ? '1 message' : `${whole(sums.messages)} messages` }} sent,
          {{ whole(sums.heldBack) }} held back</template
        ><span v-if="asking" class="soft">
          playing… <button type="button" class="plain-button link" data-test="stop" @click="r.stop">Stop</button></span
        >
      </p>
    </header>
    <p v-if="r.stopped.value" class="pad" role="status">
      Stopped; what is shown was played before.
      <button type="button" class="plain-button link" @click="r.again()">Play these days</button>
    </p>
    <p v-else-if="failure" class="short pad" role="alert" data-test="rehearse-failure">{{ failure }}</p>
    <p v-else-if="data && !hasActivity" class="pad" data-test="no-activity">
      Days are played out with what happens in front of the cameras, and nothing is said of that yet: only what is
      written round the clock is drawn.
      <RouterLink :to="{ name: 'kit', params: { part: 'activities' } }" class="act">Say what happens</RouterLink>
    </p>
    <FindBar :r="r" />
    <div class="body">
      <div class="times">
        <OverView :r="r" />
        <TimeLine ref="line" :r="r" :asked="part === 'ask' ? about : undefined" @moment="moment" />
      </div>
      <aside aria-label="What became of it">
        <TabBar v-model="part" :tabs="parts" />
        <EventStory v-if="part === 'story'" :r="r" />
        <AskPart v-else-if="part === 'ask'" :r="r" :asked="asked" @about="(id) => (about = id)" />
        <WorstPart v-else-if="part === 'worst'" :r="r" />
        <WatchPart v-else-if="part === 'watch'" :r="r" />
        <BesidePart v-else-if="part === 'beside'" :r="r" />
        <EventList v-else-if="data" :r="r" />
      </aside>
    </div>
  </div>
</template>

<style scoped>
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 8px 14px 4px;
}

.rehearse {
  display: flex;
  flex-direction: column;
  height: 100%;
  min-height: 0;
}

header {
  padding-top: 2px;
  padding-bottom: 6px;
}

.sums,
.pad {
  margin: 0;
}

.pad {
  padding: 2px 14px;
}

.body {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  min-height: 0;
  border-top: 1px solid var(--rule);
}

.times {
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  min-width: 0;
  min-height: 0;
}

aside {
  position: relative;
  overflow: auto;
  padding: 2px 14px 24px;
  background: var(--sheet);
  border-left: 1px solid var(--rule);
}

header :deep(.field) {
  gap: 6px;
}

@media (max-width: 900px) {
  .rehearse {
    overflow: auto;
  }

  .body {
    grid-template: 420px auto / minmax(0, 1fr);
    min-height: 760px;
  }

  aside {
    border-left: 0;
  }
}
</style>
