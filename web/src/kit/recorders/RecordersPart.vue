<script setup lang="ts">
import type { Pool, Recorder } from '../../api/types'
import { useSite } from '../../site/useSite'
import { fresh } from '../../duties/useDutyUse'
import RecorderCard from './RecorderCard.vue'

/** Recorders with their pools of drives. */
const site = useSite()

const pools = () => new Map(site.plan!.recorders.flatMap((r) => r.pools).map((p) => [p.id, p]))

function newPool(name: string): Pool {
  return { id: fresh(name, pools()), name, drives: [{ count: 1, terabytes: 4 }], layout: 'span' }
}

/** A new recorder begins like the last one there is. */
function add() {
  const like = site.plan!.recorders.at(-1)
  const name = `Recorder ${site.plan!.recorders.length + 1}`
  const id = fresh(name, new Map(site.plan!.recorders.map((r) => [r.id, r])))
  const pool = { ...(like?.pools[0] ?? newPool('Drives')), id: fresh(`${id}-drives`, pools()) }
  const recorder: Recorder = { ...(like ?? { channels: 16, ingestMbps: 160 }), id, name, pools: [pool] }
  site.change([{ setRecorder: { recorder } }])
}
</script>

<template>
  <div class="recorders">
    <RecorderCard v-for="r in site.plan!.recorders" :key="r.id" :recorder="r" @add-pool="site.change([{ setPool: { recorder: r.id, pool: newPool(`Pool ${r.pools.length + 1}`) } }])" />
    <p v-if="!site.plan!.recorders.length" class="soft">There is no recorder yet. Channels need one, with at least one pool of drives.</p>
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
