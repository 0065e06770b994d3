<script setup lang="ts">
import { computed, ref } from 'vue'

import type { CameraReport, WalkRecord } from '../../api/types'
import { useSite } from '../../site/useSite'
import { ago } from '../sheets/ago'
import ProposedEdits from './ProposedEdits.vue'
import WalkSeen from './WalkSeen.vue'

/** A camera with its walks, what was seen, what is likely, and what was decided. */
const props = defineProps<{
  camera: CameraReport
  decide: (about: string, said: Pick<WalkRecord, 'decision' | 'aside'>) => Promise<boolean>
}>()
const site = useSite()
const percent = (p: number) => `${Math.round(100 * p)} %`
const words = {
  again: 'Mended; to be walked again',
  propose: 'Asks to use what was found',
  leave: 'Left so',
  taken: 'Taken into the plan',
  declined: 'Declined',
}
const reason = ref('')
const leaving = ref(false)
const walks = computed(() => props.camera.walks.filter((w) => !w.optional || w.results.length))
const mayDecide = computed(() => site.role !== 'reader')
const picture = (r: WalkRecord) =>
  `/api/plans/${encodeURIComponent(site.planId)}/pictures/${encodeURIComponent(r.photo!.picture)}`

async function leave() {
  const top = props.camera.likely[0]
  const said = { what: 'leave' as const, reason: reason.value.trim(), fault: top?.fault, words: top?.words }
  if (await props.decide(props.camera.channel, { decision: said })) leaving.value = false
}
const useAsStill = (r: WalkRecord) =>
  site.change([{ setGround: { channel: props.camera.channel, picture: r.photo!.picture } }])
</script>

<template>
  <section :aria-label="camera.name" data-test="camera-seen">
    <h2>{{ camera.number }} {{ camera.name }}</h2>
    <p v-if="camera.none" class="soft">{{ camera.none }}</p>
    <div v-if="camera.likely.length" class="likely">
      <p v-for="l in camera.likely" :key="l.fault">
        <b>{{ l.words }}</b> <span class="soft">{{ percent(l.chance) }}</span>
        <span v-if="l.speaks" class="soft speaks">{{ l.speaks }}</span>
      </p>
      <p v-if="camera.look && camera.likely[0]!.fault !== 'asPlanned'">
        It is set at step {{ camera.look }} of <RouterLink :to="{ name: 'handover' }">the sheet</RouterLink>.
      </p>
      <p v-if="camera.next">{{ camera.next.words }}</p>
    </div>
    <ProposedEdits v-if="camera.proposal" :camera="camera" :proposal="camera.proposal" :decide="decide" />
    <WalkSeen v-for="w in walks" :key="w.id" :walk="w" :decide="decide" :may-decide="mayDecide" />
    <template v-if="camera.decisions.length">
      <h3>Decided</h3>
      <ul>
        <li v-for="d in camera.decisions" :key="d.id">
          {{ words[d.decision!.what] }}, {{ d.by }}, {{ ago(d.at!)
          }}<template v-if="d.decision!.reason">: {{ d.decision!.reason }}</template>
        </li>
      </ul>
    </template>
    <template v-if="camera.photos.length">
      <h3>Photos</h3>
      <ul class="photos">
        <li v-for="r in camera.photos" :key="r.id">
          <img :src="picture(r)" :alt="`Photo by ${r.by}, ${ago(r.at!)}`" />
          <span class="soft">{{ r.by }}, {{ ago(r.at!) }}</span>
          <button
            v-if="r.photo!.what === 'monitor' && site.role === 'planner' && camera.picture !== r.photo!.picture"
            type="button"
            class="act"
            data-test="use-still"
            @click="useAsStill(r)"
          >
            Use as its snapshot
          </button>
        </li>
      </ul>
    </template>
    <div v-if="mayDecide && camera.likely.length && camera.likely[0]!.fault !== 'asPlanned'" class="decide">
      <button v-if="!leaving" type="button" class="act quiet" data-test="leave-so" @click="leaving = true">
        Leave it so…
      </button>
      <form v-else @submit.prevent="leave">
        <label>Why it is left so <input v-model="reason" type="text" maxlength="2000" /></label>
        <button type="submit" class="act" :disabled="!reason.trim()">Save</button>
        <button type="button" class="act quiet" @click="leaving = false">Cancel</button>
      </form>
    </div>
  </section>
</template>

<style scoped>
h3 {
  margin-top: 16px;
}

p {
  margin: 4px 0;
}

.speaks {
  display: block;
}

ul {
  margin: 4px 0;
  padding-left: 16px;
}

.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  list-style: none;
  padding: 0;
}

.photos li {
  display: grid;
  gap: 4px;
  width: 200px;
}

.photos img {
  width: 200px;
  border-radius: 4px;
  filter: grayscale(1);
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.decide {
  margin-top: 16px;
}
</style>
