<script setup lang="ts">
import { useTitle } from '@vueuse/core'
import { computed } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { choices } from '../api/format'
import { explain } from '../duties/explain'
import TopBar from '../shell/TopBar.vue'
import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'
import TextField from '../ui/TextField.vue'
import CameraNames from './CameraNames.vue'
import OtherCameras from './OtherCameras.vue'
import OpeningRecorder from './OpeningRecorder.vue'
import OpeningVerdict from './OpeningVerdict.vue'
import { useOpening } from './useOpening'

/** From an empty page to a first verdict: the few things that are known before the site was seen. */
const { opening, draft, problems, making, isStale, size, setSize, setNames, addOthers, setRate, make } = useOpening()
const { data: beginnings, failure } = useAnswer(
  () => true,
  () => api.GET('/api/beginnings'),
)
const { codecs, sizes } = choices
useTitle('New site · Wakefield')
const zones = Intl.supportedValuesOf('timeZone')
const scenes = computed(() => {
  const all = beginnings.value
  return all?.activities.filter((a) => all.scenes.includes(a.id)).map((a) => [a.id, a.name] as const)
})
const p = (member: string) => problems.value[member]
</script>

<template>
  <div class="new">
    <TopBar />
    <main>
      <h1>A new site</h1>
      <p class="soft">What is known now is enough. Everything can be changed later, camera by camera.</p>
      <p v-if="failure" class="short" role="alert">{{ failure }}</p>
      <p v-else-if="!beginnings" class="soft">Fetching what sites begin with…</p>
      <form v-if="beginnings || failure" class="columns" novalidate @submit.prevent>
        <div>
          <fieldset class="sheet">
            <legend>1 · Where</legend>
            <TextField
              label="Site"
              :value="opening.name"
              :problem="p('name')"
              @change="(name) => (opening.name = name)"
            />
            <TextField
              label="Customer"
              :value="opening.customer"
              @change="(customer) => (opening.customer = customer)"
            />
            <TextField
              label="Time zone"
              :value="opening.timeZone"
              :choices="zones"
              :problem="p('timeZone')"
              @change="(z) => (opening.timeZone = z)"
            />
          </fieldset>
          <OpeningRecorder :opening="opening" :problems="problems" @change="(part) => Object.assign(opening, part)" />
          <fieldset class="sheet">
            <legend>3 · Cameras</legend>
            <NumberField
              whole
              label="Cameras"
              :value="opening.cameras"
              :min="1"
              :max="5000"
              data-field="cameras"
              @change="(v) => (opening.cameras = v)"
            />
            <p v-if="p('cameras')" class="short" role="alert">{{ p('cameras') }}</p>
            <ChoiceField label="Codec" :value="opening.codec" :choices="codecs" @change="(v) => (opening.codec = v)" />
            <TextField label="Resolution" :value="size" :choices="sizes" :problem="p('size')" @change="setSize" />
            <NumberField
              label="Frames"
              unit="/s"
              :value="opening.fps"
              :min="0.1"
              :max="240"
              @change="(v) => (opening.fps = v)"
            />
            <ChoiceField
              v-if="scenes"
              label="Most of them look at"
              :value="opening.activity"
              :choices="scenes"
              @change="(v) => (opening.activity = v)"
            />
            <TextField
              v-if="opening.others?.length"
              label="Called"
              :value="opening.group"
              @change="(group) => (opening.group = group || undefined)"
            />
            <OtherCameras
              v-for="(other, i) in opening.others ?? []"
              :key="i"
              :cameras="other"
              :scenes="scenes ?? []"
              :at="i"
              @change="(to) => (opening.others = opening.others!.with(i, to))"
              @remove="opening.others = opening.others!.toSpliced(i, 1)"
            />
            <p>
              <button type="button" class="plain-button link" data-test="other-cameras" @click="addOthers">
                Add cameras of another kind
              </button>
            </p>
            <CameraNames :problem="p('names')" @change="setNames" />
          </fieldset>
        </div>
        <div>
          <fieldset class="sheet">
            <legend>4 · An opening week for all</legend>
            <label v-for="d in beginnings?.duties" :key="d.id" class="duty"
              ><input v-model="opening.duty" type="radio" name="duty" :value="d.id" />
              <span
                ><b>{{ d.name }}</b> <span class="soft">{{ explain(d) }}</span></span
              ></label
            >
            <NumberField
              label="Footage must be kept"
              none="none"
              unit="days"
              :value="opening.keepDays"
              :max="36500"
              data-field="days"
              @change="(v) => (opening.keepDays = v)"
            />
          </fieldset>
          <OpeningVerdict
            :draft="draft"
            :problem="p('all')"
            :marked="Object.keys(problems).length > 0"
            :stale="isStale"
            :making="making"
            :several="!!opening.others?.length"
            @make="make"
            @rate="setRate"
            @events="(n) => (opening.eventsPerDay = n || undefined)"
          />
        </div>
      </form>
    </main>
  </div>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100%;
}

main {
  overflow: auto;
  padding: 18px max(16px, calc(50% - 460px));
}

h1 {
  font-size: var(--figure);
}

.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  align-items: start;
}

fieldset {
  margin: 0 0 12px;
}

legend {
  font-weight: 600;
  padding: 0 4px;
}

.duty {
  display: flex;
  gap: 8px;
  padding: 3px 0;
  cursor: pointer;
}

.duty .soft {
  display: block;
  font-size: var(--second);
}

.columns :deep(.field) {
  grid-template-columns: minmax(0, 1fr) minmax(0, 240px) 40px;
}

.columns :deep(.field .problem) {
  grid-column: 1 / -1;
}

@media (max-width: 760px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
