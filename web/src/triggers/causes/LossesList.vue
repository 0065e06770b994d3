<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import FindingsOf from '../parts/FindingsOf.vue'

/** What nobody would hear of: lost pictures, a recorder that is opened, a receiver that is quiet just then. */
const site = useSite()
const rules = ['loss-untold', 'no-tamper-contact', 'message-quiet', 'tie-never-acts']
const cameras = computed(() => (site.plan?.channels ?? []).filter((c) => !c.noCamera).length)
const lost = computed(
  () =>
    new Set(
      (site.plan?.effects ?? []).flatMap((e) =>
        e.when.lost && (e.message?.length || e.output?.length || e.monitor?.length) ? [e.when.lost] : [],
      ),
    ).size,
)
const guarded = computed(() => new Set((site.plan?.alarmInputs ?? []).flatMap((a) => a.guards || [])).size)
</script>

<template>
  <section data-test="losses">
    <h2>Losses</h2>
    <p class="soft">
      Somebody hears of a lost picture on {{ lost }} of {{ count(cameras, 'camera') }}; {{ guarded }} of
      {{ count(site.plan?.recorders.length ?? 0, 'recorder') }} {{ guarded === 1 ? 'has' : 'have' }} a contact in the
      housing.
      <template v-if="!site.plan?.messages?.length"> Nobody is told of anything yet: make a message above.</template>
    </p>
    <FindingsOf :rules="rules" />
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 6px;
}
</style>
