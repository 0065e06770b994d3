<script setup lang="ts">
import { computed, ref } from 'vue'

import { useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import type { Activity } from '../../api/types'
import { useSite } from '../../site/useSite'
import { change, count, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import { moment, toShown } from '../../time/week'

/** How many events come together, in words, with a picture of an hour and what it does to the days. */
const props = defineProps<{ activity: Activity }>()
const emit = defineEmits<{ change: [groups: Activity['groups']] }>()
const site = useSite()

const groups = computed(() => props.activity.groups)
const isGrouped = computed(() => !!groups.value && groups.value.size > 1)

/** Whether it is left open if events come together; the core says what a guess leaves open. */
const { data: rates } = useAnswer(
  () => props.activity,
  () => api.POST('/api/activities/rates', { body: props.activity }),
  { keep: true },
)
const isOpen = computed(() => !!rates.value?.openGroups)
const words = computed(() => {
  if (isGrouped.value) return `about ${groups.value!.size} at a time, within ${groups.value!.withinSeconds} s`
  return isOpen.value ? 'each by itself, as far as is known' : 'each by itself'
})
const single = { size: 1, withinSeconds: 60 }

const seed = ref(1)

/** The busiest hour as it may be. */
const { data: sample } = useAnswer(
  () => [props.activity, seed.value],
  () => api.POST('/api/activities/sample', { params: { query: { seed: seed.value } }, body: props.activity }),
  { debounce: 150, keep: true },
)
const when = computed(() => sample.value && moment(toShown(sample.value.from)))

/** What the site would be if the events came otherwise. */
const { data: draft } = useAnswer(
  () => [props.activity, site.stamp],
  () => {
    const groups = isGrouped.value ? single : { size: 3, withinSeconds: 60 }
    const edits = [{ setActivity: { activity: { ...props.activity, groups } } }]
    return api.POST('/api/plans/{id}/draft', { params: site.here, body: { version: site.version, edits } })
  },
  { debounce: 150, fresh: true },
)
const otherwise = computed(() => {
  const [then, now] = [draft.value?.verdict.keptDays, site.verdict?.keptDays]
  if (then == null || now == null) return ''
  const more = change(then - now)
  const supposed = isGrouped.value ? 'If each came by itself' : 'If they came about 3 at a time, within 60 s'
  return more
    ? `${supposed}: ${three(then)} days kept (${more})`
    : `${supposed} it would make no difference to the days kept.`
})

function set(part: Partial<NonNullable<Activity['groups']>>) {
  emit('change', { size: 3, withinSeconds: 60, ...groups.value, ...part })
}
</script>

<template>
  <section class="groups" aria-label="Groups">
    <div class="words">
      <b>Events come</b> <span data-test="groups">{{ words }}</span>
      <button
        v-if="!isGrouped"
        type="button"
        class="plain-button link"
        data-test="group"
        @click="emit('change', { size: 3, withinSeconds: 60 })"
      >
        They come in batches
      </button>
      <button
        v-if="isGrouped || isOpen"
        type="button"
        class="plain-button link"
        data-test="ungroup"
        @click="emit('change', single)"
      >
        Each comes by itself
      </button>
      <button
        v-if="groups && activity.known === 'guess'"
        type="button"
        class="plain-button link"
        data-test="leave-open"
        title="The likely range of days becomes wider"
        @click="emit('change', undefined)"
      >
        Not known
      </button>
    </div>
    <div v-if="groups && isGrouped" class="fields">
      <NumberField
        label="At a time, about"
        :value="groups.size"
        member="activities.groups.size"
        :step="0.5"
        data-field="group-size"
        @change="(size) => set({ size })"
      />
      <NumberField
        label="Within"
        unit="s"
        :value="groups.withinSeconds"
        member="activities.groups.withinSeconds"
        data-field="group-within"
        @change="(withinSeconds) => set({ withinSeconds })"
      />
    </div>
    <div class="sampled">
      <template v-if="sample">
        <svg
          viewBox="0 0 3600 60"
          preserveAspectRatio="none"
          role="img"
          :aria-label="`An hour as it may be: ${count(sample.events.length, 'event')}`"
          data-test="sample"
        >
          <rect
            v-for="(e, i) in sample.events"
            :key="i"
            :x="e.start"
            y="8"
            :width="Math.max(4, e.seconds)"
            height="44"
          />
        </svg>
        <p class="soft">
          {{ when }}, the busiest hour, as it may be: {{ count(sample.events.length, 'event') }}.
          <button type="button" class="plain-button link" @click="seed++">Another</button>
        </p>
        <p v-if="otherwise" data-test="without-groups">{{ otherwise }}</p>
      </template>
    </div>
  </section>
</template>

<style scoped>
/* As high before the sample as with it. */
.sampled {
  min-height: 88px;
}

.groups {
  margin: 10px 0;
}

.words {
  display: flex;
  gap: 6px;
  align-items: baseline;
}

.words .link {
  margin-left: 10px;
}

.fields {
  display: grid;
  grid-template-columns: 240px 240px;
  gap: 4px 26px;
}

svg {
  width: 100%;
  height: 34px;
  border-bottom: 1px solid var(--rule);
}

rect {
  fill: var(--ink);
  fill-opacity: 0.55;
}

p {
  margin: 4px 0;
}

@media (max-width: 760px) {
  .fields {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
