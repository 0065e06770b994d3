<script setup lang="ts">
import { computed } from 'vue'

import { useSite } from '../../site/useSite'
import { gigabytes, three } from '../../ui/figures'
import { useHand } from '../../hand/useHand'

/** Where the disk goes, while no channel is selected: the channels that write most, each with its share. */
const site = useSite()
const hand = useHand()
const most = 12

const all = computed(() =>
  (site.plan?.channels ?? [])
    .filter((c) => !c.noCamera)
    .map((c) => ({ channel: c, gb: site.figures.get(c.id)?.gigabytesPerDay ?? 0 }))
    .sort((a, b) => b.gb - a.gb),
)
const sum = computed(() => all.value.reduce((s, x) => s + x.gb, 0))
const rest = computed(() => all.value.slice(most).reduce((s, x) => s + x.gb, 0))
const share = (gb: number) => (sum.value ? (100 * gb) / sum.value : 0)
</script>

<template>
  <section v-if="all.length" aria-label="Where the disk goes" data-test="where-disk">
    <h2>Where the disk goes</h2>
    <p class="soft">
      {{ gigabytes(sum) }} a day. Select channels to see and change what is decided about them; a group's name selects
      its channels.
    </p>
    <ol>
      <li v-for="x in all.slice(0, most)" :key="x.channel.id">
        <button
          type="button"
          class="plain-button"
          :title="`Select ${x.channel.name}`"
          @click="hand.show([x.channel.id])"
        >
          <span class="name">{{ x.channel.name }}</span><span class="number">{{ gigabytes(x.gb) }}</span
          ><span class="number soft">{{ three(share(x.gb)) }} %</span>
          <i :style="{ width: `${(share(x.gb) / (share(all[0]!.gb) || 1)) * 100}%` }" />
        </button>
      </li>
      <li v-if="all.length > most" class="soft rest">
        <span class="name">{{ all.length - most }} others</span><span class="number">{{ gigabytes(rest) }}</span
        ><span class="number">{{ three(share(rest)) }} %</span>
      </li>
    </ol>
  </section>
  <p v-else class="soft">There is no camera yet; add them on the Kit page.</p>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
}

ol {
  list-style: none;
  margin: 0;
  padding: 0;
}

button,
.rest {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 48px;
  gap: 0 8px;
  width: 100%;
  padding: 2px 0 3px;
}

button:hover .name {
  text-decoration: underline;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

i {
  grid-column: 1 / -1;
  height: 3px;
  background: var(--base);
}
</style>
