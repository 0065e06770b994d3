<script setup lang="ts">
import { choices } from '../api/format'
import type { OpeningCameras } from '../api/types'
import ChoiceField from '../ui/ChoiceField.vue'
import NumberField from '../ui/NumberField.vue'
import { readSize } from '../ui/size'
import TextField from '../ui/TextField.vue'
import { ref } from 'vue'

/** Cameras of another kind of a site that is not made yet. */
const props = defineProps<{ cameras: OpeningCameras; scenes: readonly (readonly [string, string])[]; at: number }>()
const emit = defineEmits<{ change: [cameras: OpeningCameras]; remove: [] }>()
const wrong = ref('')
const set = (part: Partial<OpeningCameras>) => emit('change', { ...props.cameras, ...part })
function setSize(text: string) {
  const read = readSize(text)
  wrong.value = 'why' in read ? read.why : ''
  if (!('why' in read)) set(read)
}
</script>

<template>
  <div class="other" :data-others="at">
    <NumberField
      whole
      label="And cameras"
      :value="cameras.cameras"
      :min="1"
      :max="5000"
      data-field="others"
      @change="(v) => set({ cameras: v })"
    />
    <TextField label="Called" :value="cameras.group" @change="(group) => set({ group: group || 'Others' })" />
    <TextField
      label="Resolution"
      :value="`${cameras.width}×${cameras.height}`"
      :choices="choices.sizes.value"
      :problem="wrong"
      @change="setSize"
    />
    <NumberField label="Frames" unit="/s" :value="cameras.fps" :min="0.1" :max="240" @change="(v) => set({ fps: v })" />
    <ChoiceField
      label="They look at"
      :value="cameras.activity"
      :choices="scenes"
      @change="(v) => set({ activity: v })"
    />
    <button type="button" class="plain-button link" @click="emit('remove')">Remove these</button>
  </div>
</template>

<style scoped>
.other {
  margin-top: 8px;
  padding-top: 6px;
  border-top: 1px solid var(--rule);
}
</style>
