<script setup lang="ts">
import { computed, ref, watch } from 'vue'

import { ask, useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'

/** Channels of another site, copied here with all that they name. */
const props = defineProps<{ from: string }>()
const site = useSite()
const { data, failure } = useAnswer(
  () => props.from,
  () => api.GET('/api/sites/{id}', { params: { path: { id: props.from }, query: {} } }),
)
const channels = computed(() => (data.value?.plan.plan.channels ?? []).filter((c) => !c.noCamera))
const picked = ref<string[]>([])
const all = computed(() => channels.value.length > 0 && picked.value.length === channels.value.length)
const toggle = () => (picked.value = all.value ? [] : channels.value.map((c) => c.id))

const pools = computed(() =>
  (site.plan?.recorders ?? []).flatMap((r) =>
    r.pools.map((p) => ({ recorder: r.id, pool: p.id, name: `${r.name}, ${p.name}`, free: free(r.id, r.channels) })),
  ),
)
function free(recorder: string, most: number) {
  return most - (site.plan?.channels ?? []).filter((c) => c.recorder === recorder && !c.noCamera).length
}
const at = ref(0)
watch(pools, (list) => (at.value = Math.min(at.value, Math.max(0, list.length - 1))))
const onto = computed(() => pools.value[at.value])
const problem = ref('')
const said = ref<string[]>([])
const busy = ref(false)

async function copy() {
  busy.value = true
  const names = picked.value.length
  const told = await ask(
    api.POST('/api/plans/{id}/channels/copy', {
      params: { path: { id: site.planId } },
      body: {
        site: props.from,
        channels: picked.value,
        recorder: onto.value!.recorder,
        pool: onto.value!.pool,
      },
    }),
  )
  busy.value = false
  problem.value = told.problem && `${told.problem} Nothing was copied.`
  if (!told.data) return
  site.change(told.data.edits)
  picked.value = []
  const left = told.data.left.length
  said.value = [
    `${count(names, 'channel')} copied onto ${onto.value!.name}.`,
    ...told.data.renamed,
    ...(left
      ? [`${count(left, 'tie')} stay${left === 1 ? 's' : ''} behind: what ties name is of the other site.`]
      : []),
  ]
}
</script>

<template>
  <section aria-labelledby="copies">
    <h2 id="copies">Channels</h2>
    <p v-if="failure || problem" class="short" role="alert" data-test="copy-problem">{{ failure || problem }}</p>
    <ul v-if="said.length" role="status" data-test="copied">
      <li v-for="s in said" :key="s">{{ s }}</li>
    </ul>
    <template v-if="channels.length">
      <label class="all"
        ><input type="checkbox" :checked="all" data-test="copy-all" @change="toggle" /> all
        {{ count(channels.length, 'channel') }}</label
      >
      <div class="list" role="group" aria-label="Channels of the other site">
        <label v-for="c in channels" :key="c.id" :data-copy="c.id"
          ><input v-model="picked" type="checkbox" :value="c.id" /> <span class="soft number">{{ c.number }}</span>
          {{ c.name }} <span v-if="c.group" class="soft">{{ c.group }}</span></label
        >
      </div>
      <p class="onto">
        <label
          >onto
          <select v-model="at" data-test="copy-onto">
            <option v-for="(p, i) in pools" :key="i" :value="i">{{ p.name }}, room for {{ p.free }}</option>
          </select></label
        >
        <button type="button" class="act" :disabled="!picked.length || !onto || busy" data-test="copy" @click="copy">
          Copy {{ picked.length ? count(picked.length, 'channel') : 'them' }}
        </button>
      </p>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 8px;
}

.list {
  max-height: 50vh;
  overflow: auto;
  display: grid;
  border-block: 1px solid var(--rule);
  margin: 4px 0 8px;
}

.number {
  display: inline-block;
  min-width: 24px;
  text-align: right;
}

.onto {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  margin: 0;
}

ul {
  margin: 0 0 8px;
  padding-left: 16px;
}
</style>
