<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { along, type Draft } from '../along/store'
import { seconds } from './moment'
import { useTaken } from './useTaken'
import { noteOf } from './useWaiting'
import { show } from './view'

/** A walk that was cut short, as the page was closed meanwhile: what was tapped is kept, or it is walked again. */
const { taken, camera } = useTaken()
const draft = ref<Draft>()
onMounted(async () => (draft.value = await (await along()).get('drafts', taken.value!.plan)))
const name = (d: Draft) => camera(d.channel)?.walks.find((w) => w.id === d.walk)?.name ?? d.walk
async function end() {
  await (await along()).delete('drafts', taken.value!.plan)
  draft.value = undefined
}
async function keep() {
  const { channel, walk, minute, sign, key, planned, started } = draft.value!
  const said = { walk, minute, sign, key, planned, name: name(draft.value!) }
  const { plan, test, behind } = taken.value!
  await noteOf(plan, test.version, channel, { walk: said }, started - behind + (sign ?? 0) * 1000)
  await end()
}
async function again() {
  const { channel, walk } = draft.value!
  await end()
  show(['camera', channel, walk])
}
</script>

<template>
  <section v-if="draft" class="card" aria-label="A walk that was cut short" data-test="cut-short">
    <p>
      <b>A walk was cut short</b>: {{ camera(draft.channel)?.name ?? draft.channel }}, {{ name(draft) }},
      {{ draft.sign == null ? 'before any sign' : `sign at ${seconds(draft.sign)}` }}.
    </p>
    <div class="acts two">
      <button v-if="draft.sign != null" type="button" class="act" data-test="keep-cut" @click="keep">
        Keep what was seen
      </button>
      <button type="button" class="act" @click="again">Walk it again</button>
    </div>
  </section>
</template>
