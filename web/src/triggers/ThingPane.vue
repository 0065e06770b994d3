<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { computed } from 'vue'

import { choices } from '../api/format'
import type { Area, Patch, Walk } from '../api/types'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import { three } from '../ui/figures'
import HoursField from '../ui/HoursField.vue'
import NumberField from '../ui/NumberField.vue'
import TextField from '../ui/TextField.vue'
import { keyOf, type Picture, type Point } from './usePicture'

/** What is picked in the picture, and what the core says of it. */
const { picture, channel } = defineProps<{ picture: Picture; channel: string }>()
const { area, walk, patch, thing, things, seen } = picture
const site = useSite()

const areaSight = computed(() => seen.value?.sight.areas.find((a) => a.id === area.value?.id))
const walkSight = computed(() => seen.value?.sight.walks.find((w) => w.id === walk.value?.id))
const patchSight = computed(() => seen.value?.sight.patches.find((p) => p.id === patch.value?.id))
const objects = computed(() => {
  const own = (site.plan?.objects ?? []).map((o) => [o.id, o.name] as const)
  return [...own, ...choices.objects.value.filter(([id]) => !own.some(([o]) => o === id))]
})
const activities = computed(() => (site.plan?.activities ?? []).map((a) => [a.id, a.name] as const))

const setArea = (part: Partial<Area>) => picture.change([{ setArea: { channel, area: { ...area.value!, ...part } } }])
const setWalk = (part: Partial<Walk>) => picture.change([{ setWalk: { channel, walk: { ...walk.value!, ...part } } }])
const setPatch = (part: Partial<Patch>) =>
  picture.change([{ setPatch: { channel, patch: { ...patch.value!, ...part } } }])
const rename = (name: string) => (area.value ? setArea({ name }) : walk.value ? setWalk({ name }) : setPatch({ name }))

/** Corners as they are typed: "30.5 40, 70 40" in percent from the left and the top. */
const written = computed(() =>
  thing.value?.points.map((p) => p.map((v) => Number((v * 100).toFixed(2))).join(' ')).join(', '),
)
function typed(text: string) {
  const points = text
    .split(/[,;]\s*/)
    .filter(Boolean)
    .map((pair) =>
      pair
        .trim()
        .split(/\s+/)
        .map((v) => Number(v) / 100),
    )
  const bad = points.findIndex((p) => p.length !== 2 || p.some((v) => !Number.isFinite(v)))
  if (bad >= 0) {
    picture.complain(`Corner ${bad + 1} is not two numbers in percent, such as 30.5 40; corners are parted by commas.`)
    return
  }
  picture.hold({ ...thing.value!, points: points as Point[] })
  picture.keep()
}
</script>

<template>
  <nav v-if="things.length" aria-label="Drawn in the picture" class="drawn">
    <h2>Drawn</h2>
    <button
      v-for="t in things"
      :key="keyOf(t)"
      type="button"
      class="plain-button link"
      :aria-pressed="thing === t"
      :data-pick="keyOf(t)"
      @click="picture.pick(keyOf(t))"
    >
      {{ t.name }}
    </button>
  </nav>
  <section v-if="thing && thing.kind !== 'person'" class="thing" data-test="thing">
    <h2>{{ thing.name }}</h2>
    <TextField label="Name" :value="thing.name" :maxlength="100" @change="rename" />
    <template v-if="area">
      <template v-if="!area.ignore">
        <NumberField
          label="Smallest object"
          unit="%"
          :value="area.smallest?.percent ?? 0"
          :min="0"
          :max="100"
          data-field="smallest"
          @change="(percent) => setArea({ smallest: { percent, of: area!.smallest?.of ?? 'picture' } })"
        />
        <ChoiceField
          v-if="area.smallest"
          label="Of what"
          :value="area.smallest.of"
          :choices="choices.smallestOf.value"
          @change="(of) => setArea({ smallest: { percent: area!.smallest!.percent, of } })"
        />
        <NumberField
          label="Shortest motion"
          unit="s"
          :value="area.minSeconds"
          member="channels.detection.areas.minSeconds"
          optional
          data-field="shortest"
          @change="(minSeconds) => setArea({ minSeconds })"
          @clear="setArea({ minSeconds: undefined })"
        />
        <NumberField
          label="Sensitivity"
          unit="%"
          :value="area.sensitivityPercent"
          :min="0"
          :max="100"
          optional
          @change="(sensitivityPercent) => setArea({ sensitivityPercent })"
          @clear="setArea({ sensitivityPercent: undefined })"
        />
        <HoursField
          empty="always"
          label="Watches"
          :value="area.hours?.blocks"
          @change="(blocks) => setArea({ hours: blocks.length ? { blocks } : undefined })"
        />
      </template>
      <p v-if="areaSight" class="soft">
        Covers {{ three(areaSight.percent) }} % of the picture<template
          v-if="!area.ignore && areaSight.leftPercent < areaSight.percent - 0.005"
          >, of which {{ three(areaSight.leftPercent) }} % are not ignored</template
        >.
      </p>
    </template>
    <template v-else-if="walk">
      <ChoiceField
        label="Who walks"
        data-field="object"
        :value="walk.object"
        :choices="objects"
        @change="(object) => setWalk({ object })"
      />
      <NumberField
        label="Share of the events"
        unit="%"
        :value="walk.sharePercent"
        :min="0.01"
        :max="100"
        data-field="share"
        @change="(sharePercent) => setWalk({ sharePercent })"
      />
      <NumberField
        label="Speed"
        unit="m/s"
        :value="walk.metresPerSecond"
        :min="0.01"
        :max="100"
        optional
        @change="(metresPerSecond) => setWalk({ metresPerSecond })"
        @clear="setWalk({ metresPerSecond: undefined })"
      />
      <p v-if="!walkSight" class="soft">Set two people on the picture to know how far and how fast this is.</p>
      <p v-else-if="walkSight.noticedSeconds !== undefined" data-test="walk-says">
        {{ three(walkSight.metres) }} m in {{ three(walkSight.seconds) }} s. Noticed
        {{ three(walkSight.noticedSeconds) }} s after entering the picture, {{ three(walkSight.awayMetres ?? 0) }} m
        away<template v-if="walkSight.missingSeconds > 0.05"
          >: the first <b class="short">{{ three(walkSight.missingSeconds) }} s</b> are not kept</template
        >.
      </p>
      <p v-else class="short" data-test="walk-says">
        Never noticed:
        {{
          walkSight.entersSeconds === undefined
            ? 'it passes beside every watched area'
            : walkSight.large
              ? 'it is in sight for too short'
              : 'it is too small in every area'
        }}.
      </p>
      <div v-if="walkSight?.track.length" class="moment">
        <span class="soft">Along it</span>
        <ElSlider
          :model-value="picture.moment.value ?? 0"
          :max="walkSight.track.length - 1"
          size="small"
          aria-label="Along the walk"
          :format-tooltip="(i: number) => `${three(walkSight!.track[i]?.seconds ?? 0)} s`"
          data-field="along"
          @input="(i) => picture.look(Number(i))"
        />
      </div>
    </template>
    <template v-else-if="patch">
      <ChoiceField
        label="What moves"
        :value="patch.activity"
        :choices="activities"
        @change="(activity) => setPatch({ activity })"
      />
      <NumberField
        label="What moves covers"
        unit="%"
        :value="patch.blobPercent"
        :min="0.001"
        :max="100"
        @change="(blobPercent) => setPatch({ blobPercent })"
      />
      <p v-if="patchSight" data-test="patch-says">
        {{ three(patchSight.happensPerDay) }} a day move; {{ three(patchSight.passesPercent) }} % are in sight,
        <b>{{ three(patchSight.triggersPerDay) }}</b> start a recording.
        <template v-if="patchSight.unmaskedPercent > patchSight.passesPercent + 0.05"
          >With nothing ignored {{ three(patchSight.unmaskedPercent) }} % would be.</template
        >
      </p>
    </template>
    <TextField
      v-if="thing.points.length"
      label="Corners, % from the left and the top"
      :value="written"
      :maxlength="4000"
      data-field="corners"
      @change="typed"
    />
    <button type="button" class="plain-button link short" data-test="remove-thing" @click="picture.remove()">
      Remove
    </button>
  </section>
</template>

<style scoped>
.thing {
  border-top: 1px solid var(--rule);
  padding-top: 6px;
}

.drawn {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  border-top: 1px solid var(--rule);
  padding: 6px 0;
}

.drawn h2 {
  width: 100%;
}

.drawn [aria-pressed='true'] {
  font-weight: 700;
}

.moment {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr);
  align-items: center;
  padding-right: 8px;
}

p {
  margin: 4px 0;
}
</style>
