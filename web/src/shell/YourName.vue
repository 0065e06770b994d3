<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { ref, useTemplateRef, watch } from 'vue'

import { author } from '../api/author'
import { askHabits } from './askHabits'

/** Asks whoever is at the page for a name. */
const naming = defineModel<boolean>({ required: true })
const nameField = useTemplateRef('nameField')
const name = ref('')
watch(naming, (now) => now && (name.value = author.value), { immediate: true })

function toHabits() {
  naming.value = false
  void askHabits()
}

function keepName() {
  if (name.value.trim()) author.value = name.value.trim()
  naming.value = false
}
</script>

<template>
  <section aria-label="Your name">
    <ElDialog v-model="naming" title="Your name" width="360" @opened="nameField?.select()">
      <form @submit.prevent="keepName">
        <p class="soft">The history shows it beside your changes, and so do the pages of others.</p>
        <input
          ref="nameField"
          v-model="name"
          class="name"
          aria-label="Your name"
          maxlength="60"
          data-test="author-name"
        />
      </form>
      <template #footer>
        <button type="button" class="act quiet habits" data-test="habits" @click="toHabits">Times and numbers…</button>
        <ElButton @click="naming = false">Cancel</ElButton>
        <ElButton type="primary" data-test="keep-author" @click="keepName">Apply</ElButton>
      </template>
    </ElDialog>
  </section>
</template>

<style scoped>
.habits {
  float: left;
}

.name {
  width: 100%;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: 4px;
  padding: 4px 8px;
}
</style>
