<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../site/useSite'
import { useVariants } from '../site/useVariants'
import { dayAndMonth } from '../time/dates'
import { change, count, saves, three } from '../ui/figures'
import { notice } from '../ui/notice'
import FrontierChart from './FrontierChart.vue'
import LeverList from './LeverList.vue'
import TargetQuestion from './TargetQuestion.vue'
import SparePart from './SparePart.vue'
import { useTarget } from './useTarget'

/** What would it take: a target, what may not be touched, the least that is lost, in words a fitter could enter. */
const site = useSite()
const target = useTarget()
const { wanted, by, quality, days, data, failure, asking, progress, stop, stopped } = target
const currency = computed(() => site.plan?.prices?.currency ?? '')
const sizes = (list: number[]) => list.map((tb) => `${three(tb)} TB`).join(', ')
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const name = (channel: string) => site.channels.get(channel)?.name ?? channel

/** Channels in words: a whole group by its name, up to three by theirs, more by number. */
function who(channels: string[]): string {
  const groups = new Set(channels.map((c) => site.channels.get(c)?.group))
  const [group] = groups
  const whole = cameras.value.filter((c) => c.group && c.group === group).length
  if (groups.size === 1 && group && channels.length > 1 && whole === channels.length) return `All of ${group}`
  return channels.length > 3 ? count(channels.length, 'channel') : channels.map(name).join(', ')
}
/** Events that are missed, or no more, in words. */
function lost(n: number) {
  const text = change(n)
  if (!text) return 'no more is missed'
  return n > 0 ? `${three(n)} more events a day missed` : `${three(-n)} fewer events a day missed`
}
const isThere = computed(() => !!data.value?.reached && !data.value.edits?.length)
function make() {
  target.hold()
  site.change(data.value!.edits!)
  notice('Done here. Ctrl+Z undoes it.', { seconds: 4 })
}
/** What is kept with the changes, by every measure. */
const keptInWords = computed(() => {
  const k = data.value!.kept
  if (k.typicalDays == null) return 'no pool is ever full.'
  const date = k.worstDate ? `, ${three(k.worstDateDays!)} on ${dayAndMonth(k.worstDate)}` : ''
  const hour = k.worstHourDays == null ? '' : `, ${three(k.worstHourDays)} at the worst hour`
  return `${three(k.typicalDays)} days in an ordinary week${hour}${date}; a chance of ${Math.round(k.chancePercent)} % that all keep ${three(days.value)} days.`
})
/** A point on the curve was taken, in days of an ordinary week. */
function take(d: number) {
  const typical = data.value!.point.days
  wanted.value = by.value === 'typical' || by.value === 'chance' || !typical ? d : (d * days.value) / typical
}
const variants = useVariants()
/** What was found as a variant of its own; the one that is open stays as it is. */
const asVariant = () =>
  variants.make(
    data.value!.point.days == null ? `${site.plan!.name}, never full` : `${three(data.value!.point.days)} days`,
    data.value!.edits,
  )
</script>

<template>
  <section data-test="target">
    <TargetQuestion :target="target" />
    <p v-if="asking && progress !== undefined" class="going" role="status" data-test="target-progress">
      <progress max="100" :value="progress" /> Trying every channel: {{ Math.round(progress) }} %
      <button type="button" class="plain-button link" data-test="stop-target" @click="stop">Stop</button>
    </p>
    <p v-if="stopped" role="status">
      Stopped. <button type="button" class="plain-button link" @click="target.again()">Ask again</button>
    </p>
    <p v-else-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else-if="!data" class="soft">{{ asking ? 'Trying every channel…' : '' }}</p>
    <div v-else class="found">
      <div class="curve">
        <FrontierChart
          v-if="(data.frontier?.length ?? 0) > 1"
          :points="data.frontier!"
          :days="by === 'typical' ? days : (data.point.days ?? days)"
          :at="data.point"
          @days="take"
        />
        <p v-else class="soft">Nothing that may be changed would keep footage longer.</p>
        <p v-if="(data.frontier?.length ?? 0) > 1" class="soft" data-test="steps">
          The curve goes by the best steps; the point in hand is searched by itself, and may miss fewer. Duties that
          write nothing, or listen to alarms only, are not tried.
        </p>
      </div>
      <div class="steps">
        <p v-if="!data.evidence" data-test="no-evidence">
          No events are expected here, so nothing counts as missed. Say on
          <RouterLink :to="{ name: 'kit', params: { part: 'activities' } }">Kit, Activities</RouterLink> what happens in
          front of the cameras; then the price in evidence shows.
        </p>
        <p v-if="data.unpricedTerabytes?.length" data-test="unpriced">
          Drives of {{ sizes(data.unpricedTerabytes) }} have no price, so they are left out where a sum is given.
        </p>
        <p v-if="data.leftOut?.length" data-test="left-out">
          Without {{ who(data.leftOut) }}: deleted or limited before {{ three(days) }} days, whatever the disk.
        </p>
        <p data-test="answer" :aria-busy="asking">
          <template v-if="isThere">That many days are kept already; nothing need be changed.</template>
          <template v-else-if="data.reached"
            ><b>{{ data.point.days == null ? 'Never full' : `${three(data.point.days)} days` }}</b>
            <template v-if="by !== 'typical'"> in an ordinary week</template> and
            <b>{{ lost(data.point.lostPerDay) }}</b>{{
              data.exact ? ', the best there is' : ', the best that was found'
            }}; {{ three(data.point.gigabytesPerDay) }} GB a day.<template v-if="data.point.price">
              The drives cost {{ three(data.point.price) }} {{ currency }}.</template
            >
            An event that is kept low counts half.<template v-if="quality">
              Worse pictures count in no evidence.</template
            ></template
          >
          <template v-else
            ><b class="short">Not possible.</b> At most
            <b>{{ data.point.days == null ? 'any number of' : three(data.point.days) }} days</b> by what may be
            changed<template v-if="data.lock"
              >; the lock of {{ name(data.lock) }} costs most, {{ three(data.lockDays ?? 0) }} days</template
            >. More drives, or fewer channels on this pool, would have to do the rest.</template
          >
        </p>
        <p data-test="target-kept">{{ data.edits?.length ? 'With these changes' : 'As it is' }}: {{ keptInWords }}</p>
        <ol class="changes" data-test="changes">
          <li v-for="c in data.changes" :key="c.words">
            <template v-if="c.channels?.length"
              ><b>{{ who(c.channels) }}</b
              >: </template
            >{{ c.words }}{{ saves(c.saves) }}
          </li>
        </ol>
        <p v-if="data.edits?.length" class="acts">
          <button type="button" class="act" data-test="do-it" :disabled="asking" @click="make">
            Do it here, {{ count(data.changes?.length ?? 0, 'change') }}
          </button>
          <button type="button" class="act quiet" data-test="make-it-a-variant" :disabled="asking" @click="asVariant">
            Make it a variant
          </button>
        </p>
      </div>
      <LeverList class="levers" :levers="data.levers ?? []" :who="who" @done="target.hold" />
    </div>
    <SparePart :who="who" :ready="!!data" />
  </section>
</template>

<style scoped>
.going {
  display: flex;
  gap: 10px;
  align-items: center;
}

/* The steps stand beside the curve that they are a point of. */
.found {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 8px 24px;
  align-items: start;
  margin-top: 8px;
}

@media (min-width: 1000px) {
  .found {
    grid-template-columns: minmax(0, 11fr) minmax(0, 10fr);
  }

  .levers {
    grid-column: 1 / -1;
  }
}

.found p:first-child {
  margin-top: 0;
}

.acts {
  display: flex;
  gap: 12px;
}

.changes {
  margin: 4px 0 8px;
  padding-left: 22px;
}
</style>
