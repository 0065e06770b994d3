<script setup lang="ts">
import { computed, ref } from 'vue'

import type { WalkCamera, WalkRecord } from '../api/types'
import { against, counting } from './expect'
import { judge, nextWalk } from './judge'
import { useTaken } from './useTaken'
import { note } from './useWaiting'
import { addressOf, show } from './view'

/** What was found of a camera: expected against seen, what is likely, and what to do. */
const props = defineProps<{ camera: WalkCamera; records: WalkRecord[]; minute: number }>()
const { taken } = useTaken()
const walks = computed(() => counting(props.camera, props.records))
const stale = computed(() => props.records.filter((r) => r.walk && !walks.value.includes(r)))
const faults = computed(() => taken.value!.test.faults.map((f) => f.fault))
const likely = computed(() =>
  walks.value.length
    ? judge(
        props.camera,
        walks.value.map((r) => r.walk!),
        faults.value,
        taken.value!.test.told,
      )
    : [],
)
const top = computed(() => likely.value[0])
const next = computed(() =>
  top.value && top.value.chance < 0.95
    ? nextWalk(
        props.camera,
        walks.value.map((r) => r.walk!),
        faults.value,
        props.minute,
      )
    : undefined,
)
const look = computed(
  () => taken.value!.test.looks.find((l) => l.channel === props.camera.channel && l.fault === top.value?.fault)?.step,
)
const decided = computed(() => {
  const last = props.records.findLast((r) => r.decision || r.walk)
  return last?.decision && last
})
const asking = ref<'leave' | 'propose' | ''>('')
const reason = ref('')
const percent = (p: number) => `${Math.round(100 * p)} %`
const free = (r: WalkRecord) => !!props.camera.walks.find((w) => w.id === r.walk!.walk)?.free

const decide = (decision: NonNullable<WalkRecord['decision']>) =>
  note(taken.value!.plan, taken.value!.test.version, props.camera.channel, { decision })

async function again() {
  await decide({ what: 'again', fault: top.value?.fault, words: top.value?.words })
  if (look.value) show(['steps', props.camera.recorder, look.value])
}
async function settle() {
  const k = top.value && props.camera.cases[top.value.case]
  if (asking.value === 'leave')
    await decide({ what: 'leave', reason: reason.value.trim(), fault: top.value?.fault, words: top.value?.words })
  else if (k)
    await decide({
      what: 'propose',
      reason: reason.value.trim(),
      fault: k.fault,
      words: k.words,
      found: { value: k.value, down: k.down, of: k.of },
    })
  asking.value = ''
  reason.value = ''
}
/** What the plan has a setting for can be proposed. */
const proposable = computed(() =>
  ['off', 'untied', 'size', 'wait', 'noAreas', 'pre', 'post'].includes(top.value?.fault ?? ''),
)
const words = {
  again: 'To be walked again.',
  propose: 'A planner is asked to use what was found.',
  leave: 'Left so.',
  taken: 'A planner took it into the plan.',
  declined: 'A planner declined it.',
}
</script>

<template>
  <section v-if="records.some((r) => r.walk)" aria-label="What was found" data-test="found">
    <h2>What was found</h2>
    <div v-for="r in walks" :key="r.id" class="card">
      <b>{{ r.walk!.name }}</b> <span class="soft">{{ r.by }}</span>
      <table>
        <thead>
          <tr>
            <th scope="col"></th>
            <th scope="col" class="number">expected</th>
            <th scope="col" class="number">seen</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in against(r.walk!, free(r))" :key="row.what">
            <th scope="row">{{ row.what }}</th>
            <td class="number">{{ row.planned }}</td>
            <td class="number" :class="{ short: row.differs }">
              <b v-if="row.differs">{{ row.seen }}</b><template v-else>{{ row.seen }}</template>
            </td>
          </tr>
        </tbody>
      </table>
      <a class="act" :href="addressOf('footage', camera.channel, r.id)">{{
        r.walk!.first == null && !r.walk!.noShot ? 'Enter the footage' : 'Change the footage'
      }}</a>
    </div>
    <p v-if="stale.length" class="soft">
      {{ stale.length === 1 ? '1 walk does' : `${stale.length} walks do` }} not count: the plan expects something else
      since, something was mended, or it cannot be.
    </p>
    <template v-if="top">
      <p v-if="top.fault === 'asPlanned'" class="likely">
        <b>As planned.</b> <span class="soft">{{ percent(top.chance) }}</span>
      </p>
      <template v-else>
        <h3>Most likely</h3>
        <p v-for="l in likely" :key="l.fault" class="likely">
          {{ l.words }} <span class="soft">{{ percent(l.chance) }}</span>
        </p>
      </template>
      <p v-if="next">
        To tell more, walk: <a href="#" @click.prevent="show(['camera', camera.channel, next.id])">{{ next.name }}</a>
      </p>
    </template>
    <p v-if="decided" class="card" data-test="decided">
      {{ words[decided.decision!.what] }} <span class="soft">{{ decided.by }}</span> {{ decided.decision!.reason }}
    </p>
    <div v-if="top && top.fault !== 'asPlanned' && !asking" class="acts">
      <button type="button" class="act" data-test="mend" @click="again">
        {{ look ? `Look at sheet ${look}, and walk again` : 'Mend it, and walk again' }}
      </button>
      <button v-if="proposable" type="button" class="act" data-test="propose" @click="asking = 'propose'">
        The plan is wrong: use what was found
      </button>
      <button type="button" class="act" data-test="leave" @click="asking = 'leave'">Leave it, with a reason</button>
    </div>
    <div v-if="asking" class="card">
      <label class="field">
        {{ asking === 'leave' ? 'Why it is left so' : 'A word to the planner' }}
        <textarea v-model="reason" rows="3" data-test="reason"></textarea>
      </label>
      <div class="acts two">
        <button
          type="button"
          class="act filled"
          :disabled="asking === 'leave' && !reason.trim()"
          data-test="settle"
          @click="settle"
        >
          Save
        </button>
        <button type="button" class="act" @click="asking = ''">Cancel</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
h3 {
  font-size: 16px;
  margin-top: 12px;
}

.likely {
  margin: 4px 0;
}
</style>
