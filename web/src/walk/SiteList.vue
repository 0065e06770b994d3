<script setup lang="ts">
import { onMounted } from 'vue'

import TopLine from './TopLine.vue'
import { useTaken } from './useTaken'
import { moment } from '../time/dates'

/** The sites that were taken along. */
const { sites, load, megabytes } = useTaken()
onMounted(() => load(''))
</script>

<template>
  <TopLine />
  <main>
    <h2>On this phone</h2>
    <ul v-if="sites.length" class="rows">
      <li v-for="s in sites" :key="s.plan">
        <a :href="`/walk/${encodeURIComponent(s.plan)}`">
          <span aria-hidden="true">→</span>
          <span class="name">{{ s.test.site }} · {{ s.test.variant }}</span>
          <span class="soft">{{ moment(s.at) }}, {{ megabytes(s.bytes) }}</span>
        </a>
      </li>
    </ul>
    <p v-else>No site is on this phone. Scan the code on a sheet, or open the link under Handover, Walk test.</p>
  </main>
</template>
