<script setup lang="ts">
import type { Pool, Recorder } from '../../api/types'
import { useSite } from '../../site/useSite'
import RecorderCard from './RecorderCard.vue'

/** Recorders with their pools of drives. */
const site = useSite()

/** A new recorder begins like the last one there is. */
async function add() {
  const like = site.plan!.recorders.at(-1)
  const name = `Recorder ${site.plan!.recorders.length + 1}`
  const [id] = (await site.freeIds('recorder', name)) ?? []
  const [pool] = (await site.freeIds('pool', `${name} drives`)) ?? []
  if (!id || !pool) return
  const drives: Pool = { ...(like?.pools[0] ?? plain), id: pool, name: like?.pools[0]?.name ?? 'Drives' }
  const recorder: Recorder = { ...(like ?? { channels: 16, ingestMbps: 160 }), id, name, pools: [drives] }
  site.change([{ setRecorder: { recorder } }])
}

const plain: Omit<Pool, 'id' | 'name'> = { drives: [{ count: 1, terabytes: 4 }], layout: 'span' }

async function addPool(recorder: Recorder) {
  const name = `Pool ${recorder.pools.length + 1}`
  const [id] = (await site.freeIds('pool', name)) ?? []
  if (id) site.change([{ setPool: { recorder: recorder.id, pool: { ...plain, id, name } } }])
}
</script>

<template>
  <div class="recorders">
    <RecorderCard v-for="r in site.plan!.recorders" :key="r.id" :recorder="r" @add-pool="addPool(r)" />
    <p v-if="!site.plan!.recorders.length" class="soft">
      There is no recorder yet. Channels need one, with at least one pool of drives.
    </p>
    <button type="button" class="act quiet" data-test="new-recorder" @click="add">New recorder</button>
  </div>
</template>

<style scoped>
.recorders {
  display: grid;
  gap: 14px;
  padding: 14px 16px;
  overflow: auto;
  align-content: start;
  justify-items: start;
}
</style>
