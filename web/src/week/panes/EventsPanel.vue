<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import type { Activity } from '../../api/types'
import ActivityFacts from '../../forms/ActivityFacts.vue'
import ActivityRates from '../../forms/ActivityRates.vue'
import { useHand } from '../../hand/useHand'
import { useSite } from '../../site/useSite'
import { useUses } from '../../site/useUses'
import ChoiceField from '../../ui/ChoiceField.vue'

/** How often things happen in front of the channel selected. */
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
const { names } = useUses('activity', () => activity.value?.id)

function set(part: Partial<Activity>) {
  if (activity.value) site.change([{ setActivity: { activity: { ...activity.value, ...part } } }])
}
</script>

<template>
  <section v-if="activity" aria-label="Activity">
    <ChoiceField
      label="Activity"
      :value="activity.id"
      :choices="activities.map((a) => [a.id, a.name] as const)"
      @change="(id) => (picked = id)"
    />
    <p class="soft">{{ names.length ? names.join(', ') : 'Nothing goes by it.' }}</p>
    <ActivityFacts :activity="activity" @change="set" />
    <ActivityRates :activity="activity" small />
  </section>
  <p v-else class="soft">No activity is described yet.</p>
</template>
