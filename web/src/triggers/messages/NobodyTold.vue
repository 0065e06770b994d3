<script setup lang="ts">
import { useRouter } from 'vue-router'

import BusiestCauses from '../causes/BusiestCauses.vue'
import { useEnds } from '../causes/useEnds'
import { useTold } from '../causes/useTold'

/** What messages are for, where there is none: what happens at this site, of which somebody could be told. */
const emit = defineEmits<{ make: [] }>()
const router = useRouter()
const { data } = useTold()
const { causes } = useEnds(() => data.value?.causes)
const toCauses = () => void router.push({ name: 'triggers', params: { part: 'causes' } })
</script>

<template>
  <div class="sheet" data-test="nobody-told">
    <p>
      Nobody is told of anything yet. A message says who hears of what, at most how often, and in which hours; what goes
      out and what is held back is drawn over the week. Wakefield plans messages; it sends none.
    </p>
    <p class="soft">What happens here most:</p>
    <BusiestCauses :causes="causes" :known="!!data" @pick="toCauses" />
    <button type="button" class="act" data-test="first-message" @click="emit('make')">Make the first message</button>
  </div>
</template>

<style scoped>
.sheet {
  max-width: 560px;
}

p {
  margin: 4px 0;
}
</style>
