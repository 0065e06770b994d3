<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Activity } from '../../api/types'
import { useSite } from '../../site/useSite'
import ChoiceField from '../../ui/ChoiceField.vue'
import { count } from '../../ui/figures'
import NumberField from '../../ui/NumberField.vue'
import { inWords } from '../../time/week'
import { useHand } from '../../hand/useHand'

const site = useSite()
const hand = useHand()
const activities = computed(() => site.plan?.activities ?? [])
const picked = ref('')

/** The activity of the first channel selected, unless another is picked. */
watch(
  () => hand.selection[0],
  (id) => (picked.value = (id && site.channels.get(id)?.activity) || picked.value),
  { immediate: true },
)
const activity = computed(() => activities.value.find((a) => a.id === picked.value) ?? activities.value[0])
const users = computed(() =>
  (site.plan?.channels ?? []).filter((c) => c.activity === activity.value?.id || c.nuisance === activity.value?.id).map((c) => c.name),
)
const known = [['guess', 'a guess'], ['surveyed', 'surveyed'], ['measured', 'measured']] as const

function set(change: Partial<Activity>) {
  if (activity.value) site.change([{ setActivity: { activity: { ...activity.value, ...change } } }])
}

function setBlock(i: number, perHour: number) {
  set({ blocks: activity.value!.blocks!.map((b, k) => (k === i ? { ...b, perHour } : b)) })
}
</script>

<template>
  <section v-if="activity" aria-label="Activity">
    <ChoiceField label="Activity" :value="activity.id" :choices="activities.map((a) => [a.id, a.name] as const)" @change="(id) => (picked = id)" />
    <p class="soft">{{ users.length ? users.join(', ') : 'On no channel; an alarm input may have it.' }}</p>
    <NumberField label="An event lasts" unit="s" :value="activity.meanSeconds" :min="0.1" :max="604800" data-field="mean" @change="(meanSeconds) => set({ meanSeconds })" />
    <ChoiceField label="Known as" :value="activity.known" :choices="known" @change="(k) => set({ known: k })" />
    <h3>Events an hour</h3>
    <NumberField label="otherwise" unit="/h" :value="activity.otherwisePerHour ?? 0" :max="1000000" data-field="otherwise" @change="(otherwisePerHour) => set({ otherwisePerHour })" />
    <NumberField v-for="(b, i) in activity.blocks ?? []" :key="i" :label="inWords([b])" unit="/h" :value="b.perHour" :max="1000000" @change="(v) => setBlock(i, v)" />
    <p v-if="(activity.blocks?.length ?? 0) > 1" class="soft">{{ count(activity.blocks!.length, 'time block') }}; a later one covers an earlier one.</p>
  </section>
  <p v-else class="soft">No activity is described yet.</p>
</template>

<style scoped>
h3 {
  margin: 8px 0 2px;
}
</style>
