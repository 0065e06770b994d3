<script setup lang="ts">
/** Gives a file that is chosen to the page; nothing is sent anywhere. */
defineProps<{ label: string; accept: string; quiet?: boolean }>()
const emit = defineEmits<{ pick: [file: File] }>()
function hand(event: Event) {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  if (file) emit('pick', file)
  field.value = '' // the same file may be chosen again
}
</script>

<template>
  <label class="pick"
    ><input type="file" class="visually-hidden" :accept="accept" @change="hand" />
    <span :class="quiet ? 'link' : 'act quiet'"
      ><slot>{{ label }}</slot></span
    ></label
  >
</template>

<style scoped>
.pick {
  position: relative;
  display: inline-block;
  cursor: pointer;
}

.pick input:focus-visible + span {
  outline: 2px solid var(--focus);
  outline-offset: 1px;
}
</style>
