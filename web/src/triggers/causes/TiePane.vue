<script setup lang="ts">
import { computed } from 'vue'

import type { Finding } from '../../api/types'
import { useEffects } from '../../findings/useEffects'
import { channelsOf } from '../../findings/useFindings'
import { useSite } from '../../site/useSite'
import DurationField from '../../ui/DurationField.vue'
import { count } from '../../ui/figures'
import HoursField from '../../ui/HoursField.vue'
import NumberField from '../../ui/NumberField.vue'
import BusiestCauses from './BusiestCauses.vue'
import OwnTies from './OwnTies.vue'
import ThingForm from './ThingForm.vue'
import TieLine from './TieLine.vue'
import type { TieRow } from './useEnds'
import type { Ties } from './useTies'
import TermTip from '../../ui/TermTip.vue'

/** What is picked: tied or untied at once, each tie with its figures, and the thing itself where it is one. */
const { ties } = defineProps<{ ties: Ties }>()
const site = useSite()
const { picks, pickedCauses, shown, hours, dwell, counted, rates, seeing } = ties
const from = computed(() => picks.value.causes)
const to = computed(() => picks.value.targets)
const most = 60 // ties that are told one by one

const pairs = computed(() => from.value.length * to.value.length)
const sends = computed(() => to.value.some((t) => t.does === 'preset'))
/** What was found about a tie: where it records, about its channel and causes of that sort; else about its effect. */
function findingOf(row: TieRow): Finding | undefined {
  const { effect, does, to: id, why } = row.figures
  const effects = site.plan?.effects ?? []
  const here = effects[effect]
  return site.findings.find((f) => {
    if (f.accepted || !here) return false
    if (does !== 'record') return !!why && f.path === `effects[${effect}]`
    const first = effects[Number(/^effects\[(\d+)\]\.record/.exec(f.path)?.[1] ?? -1)]
    const isSort = !!first && !first.when.motion === !here.when.motion && !first.hours === !here.hours
    return isSort && channelsOf(f).includes(id)
  })
}
const listed = computed(() => shown.value.slice(0, most).map((row) => ({ row, finding: findingOf(row) })))
const tried = useEffects(() => [...new Set(listed.value.flatMap((l) => l.finding ?? []))])
</script>

<template>
  <aside class="pane" aria-label="What is picked">
    <section v-if="!from.length && !to.length" data-test="nothing-picked">
      <h2>What causes what</h2>
      <p class="soft">
        Pick what happens and what it does: their <TermTip word="tie">ties</TermTip> are shown here, with how often a
        day each acts. Pick on both sides, many at once with Ctrl or Shift, and tie them.
      </p>
      <p>What happens here most; press one to begin with it:</p>
      <BusiestCauses :causes="ties.causes.value" :known="!!ties.data.value" @pick="(key) => (pickedCauses = [key])" />
    </section>
    <template v-else>
      <div v-if="from.length && to.length" class="tie">
        <button type="button" class="act" data-test="tie" @click="ties.tie()">
          Tie {{ from.length === 1 ? from[0]!.name : count(from.length, 'cause') }} to
          {{ to.length === 1 ? to[0]!.name : count(to.length, 'effect') }}
        </button>
        <button
          v-if="shown.length"
          type="button"
          class="act quiet"
          data-test="untie-all"
          @click="ties.untie(shown.slice(0, 900))"
        >
          Untie {{ shown.length < pairs || shown.length > 1 ? count(shown.length, 'tie') : '' }}
        </button>
        <HoursField label="New ties apply" empty="always" :value="hours" @change="(v) => (hours = v)" />
        <DurationField
          v-if="sends"
          label="The camera looks there for"
          :value="dwell"
          member="effects.preset.dwellSeconds"
          @change="(v) => (dwell = v)"
        />
      </div>
      <NumberField
        v-if="counted.length"
        :key="pickedCauses.join(' ')"
        label="Times a month"
        :value="[...rates][0]"
        :mixed="rates.size > 1"
        member="effects.when.perMonth"
        @change="ties.setPerMonth"
      />
      <div v-if="seeing.length > 1 && !to.length" class="tie">
        <button type="button" class="act" data-test="see-the-same" @click="ties.seeTheSame()">
          These {{ seeing.length }} see the same place
        </button>
        <p class="soft">Motion on each of them records all the others then.</p>
      </div>
      <ThingForm v-if="from.length + to.length === 1" :cause="from[0]?.line" :target="to[0]" />
      <OwnTies v-if="from.length === 1 && !to.length" :cause="from[0]!.line" />
      <h2>
        <TermTip word="tie">{{ shown.length ? count(shown.length, 'tie') : 'No ties' }}</TermTip><span
          v-if="shown.length > most"
          class="soft"
          >; the first {{ most }}</span
        >
      </h2>
      <ul>
        <TieLine
          v-for="{ row, finding } in listed"
          :key="row.key"
          :row="row"
          :finding="finding"
          :tried="tried"
          @untie="ties.untie([row])"
          @hours="(at) => ties.setHours(row, at)"
          @dwell="(s) => ties.setDwell(row, s)"
        />
      </ul>
    </template>
  </aside>
</template>

<style scoped>
.pane {
  overflow: auto;
  padding: 4px 14px 12px;
  background: var(--sheet);
  border-left: 1px solid var(--rule);
}

.tie {
  padding-bottom: 8px;
  margin-bottom: 6px;
  border-bottom: 1px solid var(--rule);
}

.tie .act {
  margin: 0 6px 6px 0;
}

h2 {
  margin: 8px 0 2px;
}

p {
  margin: 2px 0 6px;
}

ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
}
</style>
