<script setup lang="ts">
import { useSite } from '../site/useSite'
import DiskList from './DiskList.vue'
import PoolBand from './PoolBand.vue'
import ReachPart from './ReachPart.vue'

/** The disks: what is on them, where they go, and what it would take to keep footage longer. */
const site = useSite()
</script>

<template>
  <div class="storage">
    <h1 class="visually-hidden">Storage of {{ site.plan?.site.name }}</h1>
    <div class="left">
      <PoolBand v-for="p in site.pools" :key="p.id" :pool="p" :compact="site.pools.length > 2" />
      <p v-if="!site.pools.length" class="soft">
        There is no pool of drives yet.
        <RouterLink :to="{ name: 'kit', params: { part: 'recorders' } }">Make one in Kit.</RouterLink>
      </p>
      <ReachPart v-else />
    </div>
    <aside class="right" aria-label="Where the disk goes">
      <DiskList />
    </aside>
  </div>
</template>

<style scoped>
.storage {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  height: 100%;
}

.left {
  overflow: auto;
  padding: 12px 18px 30px;
}

.right {
  overflow: auto;
  padding: 12px 16px 30px;
  background: var(--sheet);
  border-left: 1px solid var(--rule);
}

@media (max-width: 900px) {
  .storage {
    grid-template-columns: minmax(0, 1fr);
    overflow: auto;
  }

  .left,
  .right {
    overflow: visible;
  }
}
</style>
