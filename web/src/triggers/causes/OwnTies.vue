<script setup lang="ts">
import { computed } from 'vue'

import type { CauseLine } from '../../api/types'
import { useSite } from '../../site/useSite'
import { aDay } from './words'
import { useEdits } from '../parts/useEdits'

/** What a cause does without a tie: own motion records its channel, a button what the button names. */
const { cause } = defineProps<{ cause: CauseLine }>()
const site = useSite()
const { problem, change } = useEdits()
const channel = computed(() =>
  cause.kind === 'motion' && !cause.when.area ? site.channels.get(cause.when.motion!) : undefined,
)
const isOwn = computed(() => channel.value?.detection?.recordsSelf ?? true)
const setOwn = (recordsSelf: boolean) =>
  change({
    setDetection: {
      channels: [channel.value!.id],
      detection: {
        ...channel.value!.detection!,
        on: channel.value!.detection?.on ?? false,
        recordsSelf: recordsSelf ? undefined : false,
      },
    },
  })
const button = computed(() => site.plan?.callButtons?.find((b) => b.id === cause.when.button))
</script>

<template>
  <div v-if="channel" class="own" data-test="own-ties">
    <p v-if="!channel.detection?.on" class="short">
      Detection of {{ channel.name }} is off: its motion causes nothing.
    </p>
    <p v-else-if="isOwn">
      Records {{ channel.name }} itself, without a tie, when its duty listens<template
        v-if="cause.happensPerDay !== undefined"
        >; {{ aDay(cause.happensPerDay) }}</template
      >.
      <button type="button" class="plain-button link" data-test="own-off" @click="setOwn(false)">
        Stop recording itself
      </button>
    </p>
    <p v-else :class="{ short: cause.keeps === 'nothing' }">
      Its own motion does not record {{ channel.name }}{{ cause.keeps === 'nothing' ? ', nor anything else' : '' }}.
      <button type="button" class="plain-button link" data-test="own-on" @click="setOwn(true)">
        Let it record itself
      </button>
    </p>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  </div>
  <p v-else-if="button?.records?.length" class="soft">
    The button itself records {{ button.records.map((id) => site.channels.get(id)?.name ?? id).join(', ') }}.
  </p>
</template>

<style scoped>
p {
  margin: 2px 0 6px;
}
</style>
