<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'

import { api } from '../../api/client'
import type { Activity } from '../../api/types'
import { useSite } from '../../site/useSite'
import { change, three } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import { clock, DAY, dayNames } from '../../week/time'

/** How many events come together, in words, with a picture of an hour and what it does to the days. */
const props = defineProps<{ activity: Activity }>()
const emit = defineEmits<{ change: [groups: Activity['groups']] }>()
const site = useSite()

const groups = computed(() => props.activity.groups)
const words = computed(() => (groups.value && groups.value.size > 1 ? `about ${groups.value.size} at a time, within ${groups.value.withinSeconds} s` : 'each by itself'))

const hour = ref<{ when: string; events: { start: number; seconds: number }[] }>()
const seed = ref(1)
const withoutGroups = ref('')

/** Asks for an hour as it may be, and for the days that would be kept if every event came by itself. */
const ask = useDebounceFn(async () => {
  const asked = props.activity
  try {
    const { data } = await api.POST('/api/sample', { params: { query: { seed: seed.value } }, body: asked })
    if (data && asked.id === props.activity.id) {
      hour.value = { when: `${dayNames[Math.floor(data.from / DAY)]} ${clock(data.from % DAY)}`, events: data.events }
    }
    withoutGroups.value = ''
    if (!groups.value || !site.verdict) return
    const alone = { ...asked, groups: undefined }
    const draft = await api.POST('/api/sites/{id}/draft', { params: { path: { id: site.id } }, body: { version: site.version, edits: [{ setActivity: { activity: alone } }] } })
    const days = draft.data?.verdict.keptDays
    if (days != null && site.verdict.keptDays != null && asked.id === props.activity.id) {
      const more = change(days - site.verdict.keptDays)
      withoutGroups.value = more ? `If each came by itself: ${three(days)} days kept (${more})` : 'It makes no difference to the days kept.'
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
      <button v-if="!groups" type="button" class="plain-button link" data-test="group" @click="set({})">They come in groups</button>
      <button v-else type="button" class="plain-button link" data-test="ungroup" @click="emit('change', undefined)">Each comes by itself</button>
    </div>
    <div v-if="groups" class="fields">
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
      <p v-if="withoutGroups" data-test="without-groups">{{ withoutGroups }}</p>
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
