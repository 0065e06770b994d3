<script setup lang="ts">
import { computed } from 'vue'

import FindingList from '../../findings/FindingList.vue'
import { channelsOf } from '../../findings/useFindings'
import { useHand } from '../../hand/useHand'
import { useSite } from '../../site/useSite'
import CourseFlow from './course/CourseFlow.vue'
import DetectionFields from './DetectionFields.vue'
import DrawingTools from './picture/DrawingTools.vue'
import EmptyBoard from './picture/EmptyBoard.vue'
import GroundFields from './GroundFields.vue'
import PictureBoard from './picture/PictureBoard.vue'
import ThingPane from './ThingPane.vue'
import TriggerList from './TriggerList.vue'
import { useBrush } from './picture/useBrush'
import { usePicture } from './picture/usePicture'
import { useStill } from './picture/useStill'
import { useInAddress } from '../../site/useInAddress'

/** What cameras notice: areas, walks, patches, and the course of events from happening to disk. */
const site = useSite()
const hand = useHand()
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const here = computed({
  get: () => cameras.value.find((c) => c.id === hand.selection[0])?.id ?? cameras.value[0]?.id ?? '',
  set: (id) => hand.show([id]),
})
const channel = computed(() => site.channels.get(here.value))
useInAddress(
  'channel',
  computed({
    get: () => hand.selection[0],
    set: (id) => id && site.channels.has(id) && hand.selection[0] !== id && hand.show([id]),
  }),
  true,
  'a channel',
)
const picture = usePicture(() => channel.value)
const { problem, failure, seen } = picture
useInAddress('thing', picture.named, true, 'something in the picture')
const aspect = computed(() => seen.value?.sight.aspect ?? 16 / 9)
const brush = useBrush(picture, aspect)
const still = useStill(() => channel.value, picture)

/** Findings about this channel that a gate of its course loses by. */
const mending = computed(() => site.findings.filter((f) => f.gate && channelsOf(f).includes(here.value)))
/** Findings whose place in the plan is something that is decided here. */
const findings = computed(() =>
  site.findings.filter(
    (f) => !f.accepted && /\.(detection|scene|events)\b/.test(f.path) && channelsOf(f).includes(here.value),
  ),
)
</script>

<template>
  <div class="triggers">
    <h1 class="visually-hidden">What cameras notice at {{ site.plan?.site.name }}</h1>
    <TriggerList v-model="here" />
    <div
      v-if="channel"
      class="middle"
      @dragover="still.drag"
      @dragleave.self="still.over.value = false"
      @drop="still.drop"
    >
      <DrawingTools :picture="picture" :brush="brush" :still="still" />
      <p v-if="problem || failure" class="short" role="alert" data-test="picture-problem">{{ problem || failure }}</p>
      <p v-else-if="still.missing.value" class="short" data-test="still-missing">
        The plan names a picture that is not here: it came without its pictures. Give it again, or go on without.
      </p>
      <PictureBoard
        :key="channel.id"
        :picture="picture"
        :brush="brush"
        :aspect="aspect"
        :name="channel.name"
        :still="still.missing.value ? '' : still.source.value"
        @missing="still.missing.value = true"
      >
        <EmptyBoard v-if="!still.source.value" :picture="picture" :channel="channel.id" />
      </PictureBoard>
      <div class="below">
        <CourseFlow v-if="seen" :course="seen.course" :channel="channel.id" :findings="mending" />
      </div>
      <p v-if="still.over.value" class="drop" aria-hidden="true">
        Drop it: it becomes the picture of {{ channel.name }}
      </p>
    </div>
    <aside v-if="channel" class="pane" aria-label="What is decided here">
      <DetectionFields :picture="picture" :channel="channel" />
      <ThingPane :picture="picture" :channel="channel.id" />
      <GroundFields :picture="picture" :channel="channel" />
      <FindingList :findings="findings" :on="channel.id" small />
    </aside>
    <p v-else class="soft">There is no camera yet. <RouterLink :to="{ name: 'kit' }">Name some in Kit.</RouterLink></p>
  </div>
</template>

<style scoped>
.triggers {
  display: grid;
  grid-template-columns: 226px minmax(0, 1fr) 264px;
  height: 100%;
}

.middle {
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr) auto;
  padding: 8px 14px 10px;
  min-height: 0;
}

.middle > :deep(.frame) {
  grid-row: 3;
}

/* As high before the course is worked out as with it, whatever it says, so that the picture stays where one draws. */
.below {
  grid-row: 4;
  min-height: 216px;
}

.middle {
  position: relative;
}

.drop {
  position: absolute;
  inset: 12px;
  display: grid;
  place-items: center;
  margin: 0;
  font-size: var(--heading);
  border: 2px dashed var(--base);
  background: color-mix(in srgb, var(--sheet) 75%, transparent);
  pointer-events: none;
}

.pane {
  overflow: auto;
  padding: 8px 14px;
  background: var(--sheet);
  border-left: 1px solid var(--rule);
}

ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}

/* List, picture and what is decided are scrolled each by itself. */
@media (max-width: 1000px) {
  .triggers {
    grid-template: minmax(0, 2fr) minmax(0, 3fr) / 226px minmax(0, 1fr);
  }

  .middle {
    grid-area: 1 / 2 / 3 / 3;
  }

  .pane {
    grid-area: 2 / 1;
    border-top: 1px solid var(--rule);
  }

  .middle {
    grid-template-rows: auto auto minmax(200px, 1fr) auto;
    overflow: auto;
  }
}

/* A phone is for reading. */
@media (max-width: 500px) {
  .triggers {
    grid-template: auto auto / minmax(0, 1fr);
    overflow: auto;
  }

  .middle {
    grid-area: auto;
    height: 470px;
    overflow: visible;
  }

  .middle > :deep(.tools),
  .pane {
    display: none;
  }

  .triggers > :deep(.list) {
    height: 280px;
  }
}
</style>
