<script setup lang="ts">
import { computed, type Component } from 'vue'
import { useRoute } from 'vue-router'

import { pages } from './pages'
import NoPart from './NoPart.vue'
import PartNav from './PartNav.vue'

/** A page of several parts, of which the address names one; the first where it names none. */
const props = defineProps<{ page: string; shown: Record<string, Component> }>()
const route = useRoute()
const here = computed(() => pages.find((p) => p.name === props.page)!)
const first = computed(() => Object.keys(props.shown)[0]!)
const parts = computed(() => here.value.parts!.map((p) => ({ id: p.part ?? first.value, name: p.title })))
const part = computed(() => String(route.params.part || first.value))
</script>

<template>
  <div class="page">
    <PartNav :page="page" :label="here.title" :parts="parts" :here="part" />
    <component :is="shown[part]" v-if="part in shown" class="part" />
    <NoPart v-else :part="part" :page="here.title" class="part" />
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  height: 100%;
}

.part {
  flex: 1 1 0;
  min-height: 0;
}
</style>
