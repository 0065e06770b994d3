<script setup lang="ts">
import { useStorage } from '@vueuse/core'
import { computed, ref } from 'vue'

import DiskList from '../disk/DiskList.vue'
import { useYear } from '../disk/useYear'
import YearLine from '../disk/YearLine.vue'
import { useSite } from '../site/useSite'
import SegmentChoice from '../ui/SegmentChoice.vue'
import TabBar from '../ui/TabBar.vue'
import PoolBand from './PoolBand.vue'
import PoolsPart from './PoolsPart.vue'
import TargetPart from './TargetPart.vue'
import TakeOff from './TakeOff.vue'
import type { By } from './useLayers'
import TermTip from '../ui/TermTip.vue'
import { wordText } from '../site/asText'
import { useInAddress } from '../site/useInAddress'

/** The disks: what is on them, where they go, and what it would take to keep footage longer. */
const site = useSite()
const parts = [
  ['goes', 'Where it goes'],
  ['pools', 'Pools and limits'],
  ['off', 'Taking off'],
] as const
const part = ref<(typeof parts)[number][0]>('goes')
useInAddress(
  'tab',
  wordText(
    part,
    parts.map(([id]) => id),
    'goes',
  ),
  true,
)
const by = useStorage<By>('wakefield-band', 'groups')
const { data: year, failure } = useYear()
/** A page of pools begins with the question; what keeps least of what is required stands first. */
const many = computed(() => site.pools.length > 2)
const room = (id: string) => {
  const y = year.value?.pools.find((p) => p.id === id)
  const p = site.pools.find((x) => x.id === id)!
  return (p.retentionDays ?? Infinity) / (y?.requiredDays || 1)
}
const pools = computed(() => [...site.pools].sort((a, b) => (many.value ? room(a.id) - room(b.id) : 0)))
const ways = [
  ['groups', 'Groups'],
  ['channels', 'Channels'],
  ['causes', 'Why'],
] as const
</script>

<template>
  <div class="storage">
    <h1 class="visually-hidden">Storage of {{ site.plan?.site.name }}</h1>
    <div class="left">
      <TargetPart v-if="many" class="first" />
      <header v-if="site.pools.length">
        <h2>What is on the disks, <TermTip word="pool">pool by pool</TermTip>, back to the oldest footage</h2>
        <SegmentChoice v-model="by" label="Layers of the picture" :ways="ways" />
      </header>
      <PoolBand
        v-for="p in pools"
        :key="p.id"
        :pool="p"
        :by="by"
        :year="year?.pools.find((y) => y.id === p.id)"
        :compact="many"
      />
      <p v-if="!site.pools.length" class="soft">
        There is no pool of drives yet.
        <RouterLink :to="{ name: 'kit', params: { part: 'recorders' } }">Make one in Kit.</RouterLink>
      </p>
      <TargetPart v-else-if="!many" />
    </div>
    <aside class="right" aria-label="The disks">
      <TabBar v-model="part" :tabs="parts" />
      <template v-if="part === 'goes'">
        <DiskList />
        <section v-if="site.pools.length">
          <h2>Days kept over {{ year ? year.from.slice(0, 4) : 'the year' }}</h2>
          <YearLine :found="year" :failure="failure" brief />
        </section>
      </template>
      <PoolsPart v-else-if="part === 'pools'" />
      <TakeOff v-else />
    </aside>
  </div>
</template>

<style scoped>
.first {
  margin-bottom: 18px;
}

.storage {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 360px;
  height: 100%;
}

.left {
  position: relative;
  overflow: auto;
  padding: 12px 18px 30px;
}

header {
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 4px;
}

.right {
  position: relative;
  overflow: auto;
  padding: 6px 16px 30px;
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
