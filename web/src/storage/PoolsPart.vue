<script setup lang="ts">
import { computed, ref } from 'vue'

import { inWords } from '../api/client'
import type { Pool } from '../api/types'
import PoolForm from '../forms/PoolForm.vue'
import { useSite } from '../site/useSite'
import ChoiceField from '../ui/ChoiceField.vue'
import { amount, count, days } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import SegmentChoice from '../ui/SegmentChoice.vue'
import { usePicked } from './usePicked'

/** The pools with their channels: limits, what matters, moves between pools by drag or by menu, a pool split. */
const site = useSite()
const picked = usePicked()
const { ids, channels, toggle, common, limit, matter, move } = picked
const problem = ref('')
const over = ref('') // the pool that a drag is over
const pools = computed(() =>
  (site.plan?.recorders ?? []).flatMap((recorder) =>
    recorder.pools.map((pool) => ({
      recorder,
      pool,
      figures: site.pools.find((p) => p.id === pool.id),
      members: (site.plan?.channels ?? [])
        .filter((c) => c.pool === pool.id && !c.noCamera)
        .map((c) => ({ channel: c, figures: site.figures.get(c.id) }))
        .sort((a, b) => (b.figures?.gigabytesPerDay ?? 0) - (a.figures?.gigabytesPerDay ?? 0)),
    })),
  ),
)
const choices = computed(() => pools.value.map((p) => [p.pool.id, `${p.pool.name} of ${p.recorder.name}`] as const))

/** Drags the channels that are picked, or the one that is taken. */
function take(event: DragEvent, id: string) {
  const which = ids.value.includes(id) ? ids.value : [id]
  event.dataTransfer!.setData('application/x-wakefield-channels', which.join())
  event.dataTransfer!.effectAllowed = 'move'
}
function drop(event: DragEvent, pool: string) {
  over.value = ''
  const which = (event.dataTransfer?.getData('application/x-wakefield-channels') ?? '').split(',').filter(Boolean)
  if (which.some((id) => site.channels.get(id)?.pool !== pool)) move(pool, which)
}

/** Half of the drives, and the channels that are picked on it, become a pool of their own. */
async function split(pool: Pool) {
  problem.value = ''
  const name = `${pool.name}, second`
  const fresh = await site.freeIds('pool', name)
  if (!fresh) return
  const moving = channels.value.filter((c) => c.pool === pool.id).map((c) => c.id)
  const edit = { splitPool: { pool: pool.id, id: fresh[0]!, name, channels: moving } }
  site.change([edit], undefined, (p) => (problem.value = inWords(p)))
}
const kept = computed(() => common((c) => c.keep?.atLeastDays))
const most = computed(() => common((c) => c.keep?.atMostDays))
const quota = computed(() => common((c) => c.keep?.quotaGB))
const weight = computed({
  get: () => String(common((c) => c.matters ?? 2).value ?? '') as '1' | '2' | '3',
  set: (v) => matter(Number(v)),
})
</script>

<template>
  <div data-test="pools">
    <section v-if="channels.length" class="set" data-test="picked">
      <h2>{{ channels.length > 1 ? count(channels.length, 'channel') : channels[0]!.name }}</h2>
      <NumberField
        label="Keep at least"
        unit="days"
        none="no requirement"
        :value="kept.value"
        :mixed="kept.mixed"
        member="channels.keep.atLeastDays"
        data-field="least"
        @change="(v) => limit('atLeastDays', v)"
      />
      <NumberField
        label="Delete after"
        unit="days"
        none="no limit"
        :value="most.value"
        :mixed="most.mixed"
        member="channels.keep.atMostDays"
        data-field="most"
        @change="(v) => limit('atMostDays', v)"
      />
      <NumberField
        label="Quota of each"
        unit="GB"
        none="none"
        :value="quota.value"
        :mixed="quota.mixed"
        member="channels.keep.quotaGB"
        data-field="quota"
        @change="(v) => limit('quotaGB', v)"
      />
      <p class="line">
        <span>Matters</span>
        <SegmentChoice
          v-model="weight"
          label="How much what they miss matters"
          :ways="[
            ['1', 'less'],
            ['2', 'as usual'],
            ['3', 'more'],
          ]"
        />
      </p>
      <ChoiceField
        v-if="choices.length > 1"
        label="Kept on"
        :value="common((c) => c.pool).value ?? ''"
        :choices="choices"
        data-test="move-to"
        @change="(pool) => move(pool)"
      />
      <button type="button" class="plain-button link" @click="ids = []">Clear selection</button>
    </section>
    <p v-else class="soft">Pick channels to set their limits or move them; drag them onto another pool.</p>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <section
      v-for="p in pools"
      :key="p.pool.id"
      class="pool"
      :class="{ over: over === p.pool.id }"
      :data-pool-card="p.pool.id"
      @dragover.prevent="over = p.pool.id"
      @dragleave="over === p.pool.id && (over = '')"
      @drop.prevent="drop($event, p.pool.id)"
    >
      <h2>
        {{ p.pool.name }} <span class="soft">{{ p.recorder.name }}</span>
        <b class="kept">{{ p.figures ? days(p.figures.retentionDays) : '' }}</b>
      </h2>
      <details>
        <summary>Drives, RAID level, spares, reserve</summary>
        <PoolForm :recorder="p.recorder.id" :pool="p.pool" />
        <button type="button" class="plain-button link" :data-split="p.pool.id" @click="split(p.pool)">
          Split: half of its drives, and the channels picked on it, become a pool of their own
        </button>
      </details>
      <ul>
        <li
          v-for="m in p.members"
          :key="m.channel.id"
          draggable="true"
          :data-member="m.channel.id"
          @dragstart="take($event, m.channel.id)"
        >
          <label
            ><input type="checkbox" :checked="ids.includes(m.channel.id)" @change="toggle(m.channel.id)" />
            <span class="name">{{ m.channel.name }}</span></label
          >
          <span class="number">{{ amount(m.figures?.gigabytesPerDay ?? 0) }}</span>
          <span class="number" :class="m.figures?.short ? 'short' : 'soft'">{{ days(m.figures?.retentionDays) }}</span>
        </li>
        <li v-if="!p.members.length" class="soft">No channel is kept here.</li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.pool {
  margin: 10px 0 0;
  padding-top: 6px;
  border-top: 1px solid var(--rule);
}

.pool.over {
  outline: 2px dashed var(--ink);
  outline-offset: 2px;
}

h2 {
  display: flex;
  gap: 8px;
  align-items: baseline;
  margin: 0 0 4px;
}

h2 span {
  font-weight: 400;
  font-size: var(--second);
}

.kept {
  margin-left: auto;
}

ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 64px;
  gap: 8px;
  padding: 1px 0;
  cursor: grab;
}

label {
  display: flex;
  gap: 6px;
  min-width: 0;
}

.name {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}

.set {
  padding-bottom: 8px;
}

.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin: 4px 0;
}

summary {
  cursor: pointer;
  color: var(--soft);
}
</style>
