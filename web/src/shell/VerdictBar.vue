<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { choices, nameOf } from '../api/format'
import { useFindings } from '../findings/useFindings'
import { useEntered } from '../site/useEntered'
import { useSite } from '../site/useSite'
import { dayAndMonth } from '../time/dates'
import { change, changeGB, count, daysInWords, gigabytes, three } from '../ui/figures'
import { useHand } from '../hand/useHand'

const site = useSite()
const hand = useHand()
const { count: found } = useFindings()
const entered = useEntered()
const route = useRoute()
/** Pages that show the plan as entered too; the others speak of the plan, and so does the verdict there. */
const shows = computed(() => entered.differs && ['week', 'handover'].includes(String(route.name)))
const v = computed(() => (shows.value ? entered.verdict! : site.verdict!))
const before = computed(() => site.opened ?? v.value)

const channel = computed(() => (v.value.channel ? site.channels.get(v.value.channel) : undefined))
const atMost = computed(() => channel.value?.keep?.atMostDays)
const range = computed(() => v.value.likelyDays)

/** The change of a figure since the page was opened. */
const since = (now?: number | null, then?: number | null) => (now != null && then != null ? change(now - then) : '')

const drives = computed(() => {
  const pools = (site.plan?.recorders ?? []).flatMap((r) => r.pools)
  if (pools.length !== 1) return count(pools.length, 'pool')
  const pool = pools[0]!
  const layout = nameOf(choices.layouts.value, pool.layout)
  return `${pool.drives.map((g) => `${g.count} × ${g.terabytes} TB`).join(' + ')}, ${layout}`
})

/** The date of the year on which less is kept than in an ordinary week. */
const worstDate = computed(() => {
  const y = site.year
  if (!y || v.value.worstDays == null || y.worstDays >= v.value.worstDays - 0.05) return ''
  return `${three(y.worstDays)} on ${dayAndMonth(y.worstDate)}${y.name ? `, ${y.name}` : ''}`
})

const points = computed(() => {
  const text = since(v.value.evidence.keptPercent, before.value.evidence.keptPercent)
  return text && `${text} points`
})
const missed = computed(() => {
  const text = since(v.value.evidence.missedPerDay, before.value.evidence.missedPerDay)
  return `${three(v.value.evidence.missedPerDay)} missed a day${text && ` (${text})`}`
})
</script>

<template>
  <section class="verdict" aria-label="Verdict">
    <button
      type="button"
      class="plain-button figure long"
      data-test="verdict-days"
      @click="v.channel && hand.show([v.channel])"
    >
      <b :class="{ short: v.short }" data-test="kept">{{
        v.keptDays == null ? 'no limit' : daysInWords(v.keptDays)
      }}</b>
      <i>{{ since(v.keptDays, before.keptDays) }}</i>
      <span
        v-if="v.requiredDays != null"
        :title="channel ? `${channel.name} is the channel with the least room for the days it must be kept` : ''"
      >
        of {{ v.requiredDays }} required · {{ channel?.name
        }}<template v-if="atMost">, deleted after {{ three(atMost) }}</template
        ><template v-if="worstDate"> · {{ worstDate }}</template
        ><template v-else-if="v.worstDays != null"> · worst hour {{ three(v.worstDays) }}</template>
      </span>
      <span v-else>kept{{ channel ? `, ${channel.name}` : '' }} · nothing is required</span>
    </button>
    <button type="button" class="plain-button figure long" @click="v.channel && hand.show([v.channel])">
      <b>{{ range ? `${three(range.low)} – ${daysInWords(range.high)}` : '—' }}</b>
      <span :title="`In ${Math.round(v.holdsPercent)} of 100 cases every channel keeps the days required of it.`"
        >likely range (80 %) · {{ Math.round(v.holdsPercent) }} % chance all are met</span
      >
    </button>
    <button type="button" class="plain-button figure" @click="hand.panel = 'channel'">
      <b data-test="gb">{{ gigabytes(v.gigabytesPerDay) }}</b>
      <i>{{ changeGB(v.gigabytesPerDay - before.gigabytesPerDay) }}</i>
      <span>a day · {{ three(v.averageMbps) }} Mbit/s mean</span>
    </button>
    <button type="button" class="plain-button figure" data-test="verdict-disk" @click="hand.panel = 'disk'">
      <b>{{ gigabytes(v.usableGB) }}</b>
      <i>{{ changeGB(v.usableGB - before.usableGB) }}</i>
      <span>usable · {{ drives }}</span>
    </button>
    <button type="button" class="plain-button figure long" @click="hand.panel = 'events'">
      <b>{{ three(v.evidence.keptPercent) }} %</b>
      <i>{{ points }}</i>
      <span>of events on disk · {{ missed }}</span>
    </button>
    <label v-if="shows" class="figure entered" title="Recorders do not take all that is planned; see Findings">
      <input v-model="entered.wanted" type="checkbox" data-test="as-entered" /> as entered
    </label>
    <RouterLink :to="{ name: 'findings' }" class="figure" data-test="verdict-findings">
      <b
        ><span class="each" :class="{ short: found.error > 0 }">{{ found.error }}</span> · {{ found.warning }} ·
        {{ found.hint }}</b
      >
      <span>errors · warnings · hints</span>
    </RouterLink>
  </section>
</template>

<style scoped>
.verdict {
  display: flex;
  justify-content: space-between;
  gap: 4px 18px;
  padding: 6px 16px 7px;
  background: var(--band);
  border-bottom: 1px solid var(--rule);
  overflow-x: auto;
  scrollbar-width: none;
}

/* Six places that do not move while their figures change. */
@media (min-width: 1001px) {
  .verdict {
    display: grid;
    grid-template-columns: 37fr 27fr 17fr 16fr 23fr auto;
  }

  .verdict:has(.entered) {
    grid-template-columns: 37fr 27fr 17fr 16fr 23fr auto auto;
  }
}

.figure {
  flex: none;
  min-width: 0;
  white-space: nowrap;
  color: inherit;
  text-decoration: none;
}

/* Where changes stand beside the figures, the longest sentences give way. */
.figure.long {
  flex: 0 1 auto;
  min-width: 150px;
}

.figure.entered {
  align-self: center;
  font-size: var(--second);
  cursor: pointer;
}

.figure .each {
  display: inline;
  font-size: inherit;
  color: inherit;
}

.figure .each.short {
  color: var(--short);
}

.figure b {
  font-size: var(--figure);
  line-height: 1.2;
}

.figure i {
  font-style: normal;
  margin-left: 6px;
  color: var(--soft);
}

.figure span {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: var(--second);
  color: var(--soft);
}

.figure:hover span {
  color: var(--ink);
}

@media (min-width: 501px) and (max-width: 1000px) and (max-height: 520px) {
  .verdict {
    padding: 2px 10px;
  }

  .figure b {
    font-size: var(--heading);
  }
}
</style>
