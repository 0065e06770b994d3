<script setup lang="ts">
import { ElUpload, type UploadFile } from 'element-plus'

/** Gives a file that is chosen to the page; nothing is sent anywhere. */
defineProps<{ label: string; accept: string; quiet?: boolean }>()
const emit = defineEmits<{ pick: [file: File] }>()
const hand = (file: UploadFile) => file.raw && emit('pick', file.raw)
</script>

<template>
  <ElUpload class="pick" :auto-upload="false" :show-file-list="false" :accept="accept" :on-change="hand">
    <span :class="quiet ? 'link' : 'act quiet'"
      ><slot>{{ label }}</slot></span
    >
  </ElUpload>
</template>

<style scoped>
.pick {
  display: inline-block;
}

.pick :deep(.el-upload:focus) {
  color: inherit;
}
</style>
