<script setup lang="ts">
import { ref } from 'vue'

/** Something that is shown once: a link, a token, codes. */
defineProps<{ text: string; what: string }>()
const copied = ref(false)
async function copy(text: string) {
  try {
    await navigator.clipboard.writeText(text)
    copied.value = true
  } catch {
    copied.value = false // it can be marked and copied by hand
  }
}
</script>

<template>
  <div class="sheet once" role="status" data-test="once">
    <p>{{ what }} It is not shown again.</p>
    <pre tabindex="0" data-test="secret">{{ text }}</pre>
    <button type="button" class="act quiet" @click="copy(text)">{{ copied ? 'Copied' : 'Copy' }}</button>
  </div>
</template>

<style scoped>
.once {
  margin: 8px 0;
}

p {
  margin: 0 0 4px;
}

pre {
  margin: 0 0 8px;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  user-select: all;
}
</style>
