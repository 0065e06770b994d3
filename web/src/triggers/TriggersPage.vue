<script setup lang="ts">
import { computed } from 'vue'

import FindingItem from '../findings/FindingItem.vue'
import { channelsOf } from '../findings/useFindings'
import { useHand } from '../hand/useHand'
import { useSite } from '../site/useSite'
import CourseFlow from './CourseFlow.vue'
import DetectionFields from './DetectionFields.vue'
import PictureBoard from './PictureBoard.vue'
import ThingPane from './ThingPane.vue'
import TriggerList from './TriggerList.vue'
import { usePicture, type Tool } from './usePicture'

/** What cameras notice: areas, walks, patches, and the course of events from happening to disk. */
const site = useSite()
const hand = useHand()
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera))
const here = computed({
  get: () => cameras.value.find((c) => c.id === hand.selection[0])?.id ?? cameras.value[0]?.id ?? '',
  set: (id) => hand.show([id]),
})
const channel = computed(() => site.channels.get(here.value))
const picture = usePicture(() => channel.value)
const { tool, problem, failure, seen, laid } = picture

const tools: [Tool, string, string][] = [
  ['watch', 'Watch', 'An area in which motion counts'],
  ['ignore', 'Ignore', 'An area in which motion counts for nothing'],
  ['walk', 'Walk', 'How wanted things come, by their feet'],
  ['patch', 'Patch that moves', 'Where something moves that nobody wants'],
  ['person', 'A person', 'A person of 1.7 m where one would stand; two tell distances'],
]
function take(t: Tool) {
  picture.letGo()
  tool.value = t
}
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
    <div v-if="channel" class="middle">
      <div class="tools" role="toolbar" aria-label="What to draw">
        <button
          v-for="[t, name, title] in tools"
          :key="t"
          type="button"
          class="act quiet"
          :class="{ here: tool === t }"
          :aria-pressed="tool === t"
          :title="title"
          :data-tool="t"
          @click="tool === t ? picture.letGo() : take(t)"
        >
          {{ name }}
        </button>
        <span class="soft">{{
          !tool
            ? 'drag corners · Alt+click removes one'
            : tool === 'person'
              ? 'click where the feet are'
              : laid.length
                ? 'double click or Enter ends it, Esc gives up'
                : 'click its points; Enter on the picture lays a plain one'
        }}</span>
      </div>
      <p v-if="problem || failure" class="short" role="alert" data-test="picture-problem">{{ problem || failure }}</p>
      <PictureBoard :key="channel.id" :picture="picture" :name="channel.name" />
      <CourseFlow v-if="seen" :course="seen.course" />
    </div>
    <aside v-if="channel" class="pane" aria-label="What is decided here">
      <DetectionFields :picture="picture" :channel="channel" />
      <ThingPane :picture="picture" :channel="channel.id" />
      <ul v-if="findings.length">
        <FindingItem v-for="f in findings" :key="f.id" :finding="f" :on="channel.id" class="small" />
      </ul>
    </aside>
    <p v-else class="soft">There is no camera yet. <RouterLink :to="{ name: 'kit' }">Name some in Kit.</RouterLink></p>
  </div>
</template>

<style scoped>
.triggers {
  display: grid;
  grid-template-columns: 226px minmax(0, 1fr) 250px;
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

.middle > :deep(.course) {
  grid-row: 4;
}

.tools {
  display: flex;
  flex-wrap: wrap;
  gap: 5px 8px;
  align-items: center;
  padding-bottom: 7px;
  font-size: 12.5px;
}

.tools .here {
  background: var(--base);
  color: var(--on-base);
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

@media (max-width: 1000px) {
  .triggers {
    grid-template: auto auto / 170px minmax(0, 1fr);
    overflow: auto;
  }

  .triggers > :deep(.list),
  .middle {
    height: 470px;
  }

  .pane {
    grid-column: 1 / -1;
    border-top: 1px solid var(--rule);
  }
}

/* A phone is for reading. */
@media (max-width: 500px) {
  .triggers {
    grid-template-columns: minmax(0, 1fr);
  }

  .tools,
  .pane {
    display: none;
  }

  .triggers > :deep(.list) {
    height: 280px;
  }
}
</style>
