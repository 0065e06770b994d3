<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { api } from '../../api/client'
import type { Activity } from '../../api/types'
import { useSite } from '../../site/useSite'
import { change, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import { clock, DAY, dayNames } from '../../time/week'

/** How many events come together, in words, with a picture of an hour and what it does to the days. */
const props = defineProps<{ activity: Activity }>()
const emit = defineEmits<{ change: [groups: Activity['groups']] }>()
const site = useSite()

const groups = computed(() => props.activity.groups)
const isGrouped = computed(() => !!groups.value && groups.value.size > 1)

/** A guess that says nothing of groups leaves it open; who counted has seen that each comes by itself. */
const isOpen = computed(() => !groups.value && props.activity.known === 'guess')
const words = computed(() => {
  if (isGrouped.value) return `about ${groups.value!.size} at a time, within ${groups.value!.withinSeconds} s`
  return isOpen.value ? 'each by itself, as far as is known' : 'each by itself'
})
const single = { size: 1, withinSeconds: 60 }

const hour = ref<{ when: string; events: { start: number; seconds: number }[] }>()
const seed = ref(1)
const otherwise = ref('')

/** Asks for an hour as it may be, and for the days that would be kept if every event came by itself. */
const ask = useDebounceFn(async () => {
  const asked = props.activity
  try {
    const { data } = await api.POST('/api/activities/sample', { params: { query: { seed: seed.value } }, body: asked })
    if (data && asked.id === props.activity.id) {
      hour.value = { when: `${dayNames[Math.floor(data.from / DAY)]} ${clock(data.from % DAY)}`, events: data.events }
    }
    otherwise.value = ''
    if (!site.verdict) return
    const other = { ...asked, groups: isGrouped.value ? single : { size: 3, withinSeconds: 60 } }
    const draft = await api.POST('/api/plans/{id}/draft', { params: site.here, body: { version: site.version, edits: [{ setActivity: { activity: other } }] } })
    const days = draft.data?.verdict.keptDays
    if (days != null && site.verdict.keptDays != null && asked.id === props.activity.id) {
      const more = change(days - site.verdict.keptDays)
      const supposed = isGrouped.value ? 'If each came by itself' : 'If they came about 3 at a time, within 60 s'
      otherwise.value = more ? `${supposed}: ${three(days)} days kept (${more})` : `${supposed} it would make no difference to the days kept.`
    }
  } catch {
    hour.value = undefined
  }
}, 150)
watch(() => [props.activity, seed.value, site.version], ask, { immediate: true })

function set(part: Partial<NonNullable<Activity['groups']>>) {
  emit('change', { size: 3, withinSeconds: 60, ...groups.value, ...part })
}
</script>

<template>
  <section class="groups" aria-label="Groups">
    <div class="words">
      <b>Events come</b> <span data-test="groups">{{ words }}</span>
      <button v-if="!isGrouped" type="button" class="plain-button link" data-test="group" @click="emit('change', { size: 3, withinSeconds: 60 })">They come in groups</button>
      <button v-if="isGrouped || isOpen" type="button" class="plain-button link" data-test="ungroup" @click="emit('change', single)">Each comes by itself</button>
      <button v-if="groups && activity.known === 'guess'" type="button" class="plain-button link" data-test="leave-open" title="The likely range of days becomes wider" @click="emit('change', undefined)">Not known</button>
    </div>
    <div v-if="groups && isGrouped" class="fields">
      <NumberField label="At a time, about" :value="groups.size" :min="1" :max="1000" :step="0.5" data-field="group-size" @change="(size) => set({ size })" />
      <NumberField label="Within" unit="s" :value="groups.withinSeconds" :min="1" :max="21600" data-field="group-within" @change="(withinSeconds) => set({ withinSeconds })" />
    </div>
    <template v-if="hour">
      <svg viewBox="0 0 3600 60" preserveAspectRatio="none" role="img" :aria-label="`An hour as it may be: ${hour.events.length} events`" data-test="sample">
        <rect v-for="(e, i) in hour.events" :key="i" :x="e.start" y="8" :width="Math.max(4, e.seconds)" height="44" />
      </svg>
      <p class="soft">
        {{ hour.when }}, the busiest hour, as it may be: {{ hour.events.length }} events.
        <button type="button" class="plain-button link" @click="seed++">Another</button>
      </p>
      <p v-if="otherwise" data-test="without-groups">{{ otherwise }}</p>
    </template>
  </section>
</template>

<style scoped>
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
  fill: var(--motion);
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
