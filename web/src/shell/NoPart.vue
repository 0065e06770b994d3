<script setup lang="ts">
/** A part that an address names and that its page does not have. */
defineProps<{ part: string; page: string }>()
</script>

<template>
  <p class="nothing" role="alert" data-test="no-part">There is no part “{{ part }}” of {{ page }}. Choose one above.</p>
</template>

<style scoped>
.nothing {
  padding: 16px;
}
</style>
