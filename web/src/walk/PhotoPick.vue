<script setup lang="ts">
import { ref, useId } from 'vue'

import { useTaken } from './useTaken'
import { note } from './useWaiting'

/** A picture of the monitor, or of what somebody should see: from the phone's camera, or a file. */
const props = defineProps<{ channel: string }>()
const { taken, of } = useTaken()
const id = useId()
const failure = ref('')
/** What the server takes at most; see docs/operation.md. */
const most = 16e6

async function picked(event: Event, what: 'monitor' | 'site') {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  failure.value = ''
  if (!file) return
  if (file.size > most) {
    failure.value = `The picture has ${Math.round(file.size / 1e6)} MB; at most 16 are taken.`
    return
  }
  await note(taken.value!.plan, taken.value!.test.version, props.channel, { photo: { picture: 'waits', what } }, file)
}
</script>

<template>
  <section aria-label="Photos">
    <div class="acts two">
      <label :for="id + 'm'" class="act"
        >Photo of its picture<input
          :id="id + 'm'"
          type="file"
          accept="image/*"
          class="visually-hidden"
          data-test="photo"
          @change="picked($event, 'monitor')"
      /></label>
      <label :for="id + 's'" class="act"
        >Photo of the place<input
          :id="id + 's'"
          type="file"
          accept="image/*"
          class="visually-hidden"
          @change="picked($event, 'site')"
      /></label>
    </div>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-if="of(channel).some((r) => r.photo)" class="soft" data-test="photos">
      {{ of(channel).filter((r) => r.photo).length }} kept with this camera. A planner can make one its snapshot.
    </p>
  </section>
</template>
