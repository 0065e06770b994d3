<script setup lang="ts">
import { computed } from 'vue'

import { choices, nameOf } from '../api/format'
import type { Channel, Rate, StreamName } from '../api/types'
import { useSite } from '../site/useSite'
import { capital } from '../ui/plain'
import RateForm from './RateForm.vue'

/** The bitrate of one stream of some channels; a change is given to all of them. */
const props = defineProps<{ channels: Channel[]; which: StreamName }>()
const site = useSite()

const stream = computed(() => props.channels[0]!.streams![props.which]!)
const mixed = computed(() => {
  const said = JSON.stringify(stream.value.rate)
  return props.channels.some((c) => JSON.stringify(c.streams?.[props.which]?.rate) !== said)
})
const title = computed(() => capital(nameOf(choices.streams.value, props.which)))

function set(rate: Rate) {
  const channels = props.channels.filter((c) => c.streams?.[props.which]).map((c) => c.id)
  site.change([{ setRate: { channels, stream: props.which, rate } }])
}
</script>

<template>
  <fieldset>
    <legend>
      {{ title }}
      <span class="soft"
        >{{ nameOf(choices.codecs.value, stream.codec) }} {{ stream.width }}×{{ stream.height }},
        {{ stream.fps }}/s</span
      >
    </legend>
    <p v-if="mixed" class="soft">They differ; the figures are {{ channels[0]!.name }}'s.</p>
    <RateForm :stream="stream" @change="set" />
  </fieldset>
</template>

<style scoped>
fieldset {
  margin: 8px 0 0;
  padding: 6px 0 0;
  border: 0;
  border-top: 1px solid var(--rule);
}

legend {
  float: left;
  width: 100%;
  padding: 0;
  font-weight: 600;
}

legend .soft {
  font-weight: 400;
  font-size: var(--second);
}

legend + * {
  clear: both;
}
</style>
