<script setup lang="ts">
import PlainField from '../forms/PlainField.vue'

/** The password as it is, which is asked before anything is changed about how one signs in. */
defineProps<{ problem?: string }>()
const password = defineModel<string>({ required: true })
</script>

<template>
  <PlainField
    v-model="password"
    label="Password now"
    type="password"
    autocomplete="current-password"
    :problem="problem"
  />
</template>
