<script setup lang="ts">
import { ElInputNumber, ElOption, ElSelect } from 'element-plus'
import { computed, onUnmounted, ref, useId, watch } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import type { Beside } from '../api/types'
import { useSite } from '../site/useSite'
import { three, whole } from '../ui/figures'
import type { Rehearsing } from './useRehearsal'

/** The same happenings before and after: under another variant, or under an earlier revision of this one. */
const { r } = defineProps<{ r: Rehearsing }>()
const site = useSite()
const id = useId()
const others = computed(() => site.variants.filter((v) => !v.removed && v.id !== site.planId))
const variant = ref('') // empty for a revision
const revision = ref(0)
watch(
  () => site.version,
  (v) => {
    if (!revision.value || revision.value >= v) revision.value = v - 1
  },
  { immediate: true },
)
const { data, failure } = useAnswer(
  () => [r.data.value, variant.value, revision.value],
  () =>
    r.data.value && (variant.value || revision.value > 0)
      ? api.GET('/api/plans/{id}/rehearse/beside', {
          params: {
            ...site.here,
            query: {
              ...r.query.value,
              variant: variant.value || undefined,
              revision: variant.value ? undefined : revision.value,
            },
          },
        })
      : undefined,
  { keep: true },
)
const rows: [string, keyof Beside['before']][] = [
  ['wanted events', 'wanted'],
  ['kept in full', 'full'],
  ['kept low', 'low'],
  ['missed', 'missed'],
  ['unwanted triggers', 'unwanted'],
  ['hours of footage', 'hours'],
  ['GB written', 'gigabytes'],
  ['messages sent', 'messages'],
]
const rank = { full: 2, low: 1, missed: 0 }
const kept = computed(() => (data.value?.turned ?? []).filter((t) => rank[t.after] > rank[t.before]))
const lost = computed(() => (data.value?.turned ?? []).filter((t) => rank[t.after] < rank[t.before]))
watch(data, (d) => {
  r.mark(
    new Map((d?.turned ?? []).map((t) => [`${t.channel} ${t.at}`, rank[t.after] > rank[t.before] ? 'kept' : 'lost'])),
  )
})
onUnmounted(() => r.mark(new Map()))
const fates = { full: 'in full', low: 'low', missed: 'missed' }
const number = (n: number) => (Number.isInteger(n) ? whole(n) : three(n))
</script>

<template>
  <section data-test="beside">
    <h2>Before and after</h2>
    <label :for="id">Before is</label>
    <ElSelect :id="id" v-model="variant" size="small" data-choice="before">
      <ElOption value="" label="an earlier revision of this variant" />
      <ElOption v-for="v in others" :key="v.id" :value="v.id" :label="v.name" />
    </ElSelect>
    <p v-if="!variant && site.version > 1" class="line">
      Revision
      <ElInputNumber
        v-model="revision"
        size="small"
        :min="1"
        :max="site.version - 1"
        :precision="0"
        aria-label="Revision"
      />
    </p>
    <p v-if="!variant && site.version < 2" class="soft">
      This variant has one revision. Change something, and see here what became of the same week.
    </p>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <template v-if="data">
      <table>
        <thead>
          <tr>
            <th scope="col"><span class="visually-hidden">what</span></th>
            <th scope="col" class="number">{{ data.name }}</th>
            <th scope="col" class="number">now</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[name, key] in rows" :key="key" :data-sum="key">
            <th scope="row">{{ name }}</th>
            <td class="number">{{ number(data.before[key]) }}</td>
            <td class="number">{{ number(data.after[key]) }}</td>
          </tr>
        </tbody>
      </table>
      <p data-test="turned">
        <b>{{ kept.length }}</b> kept now, or better; <b :class="{ short: lost.length }">{{ lost.length }}</b> missed
        now, or worse<template v-if="data.more">; {{ data.more }} more are not listed</template>.
      </p>
      <ol>
        <li v-for="(t, i) in [...lost, ...kept].slice(0, 60)" :key="i">
          <button type="button" class="plain-button link" @click="r.show(t.at, 3600)">{{ t.words }}</button>
          <span :class="{ short: rank[t.after] < rank[t.before] }">
            {{ fates[t.before] }}, now {{ fates[t.after] }}</span
          >
        </li>
      </ol>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 6px;
}

table {
  border-collapse: collapse;
  margin-top: 8px;
}

th,
td {
  font-weight: 400;
  text-align: left;
  padding: 2px 14px 2px 0;
}

.number {
  text-align: right;
}

.line {
  display: flex;
  gap: 8px;
  align-items: center;
}

ol {
  margin: 2px 0;
  padding-left: 22px;
}
</style>
