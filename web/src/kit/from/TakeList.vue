<script setup lang="ts">
import { computed, ref } from 'vue'

import { ask, useAnswer } from '../../api/ask'
import { api } from '../../api/client'
import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'

/** What of another site is otherwise here, or not here: taken one by one, several, or all. */
const props = defineProps<{ from: string }>()
const emit = defineEmits<{ taken: [] }>()
const site = useSite()
const { data, failure } = useAnswer(
  () => [props.from, site.planId, site.version],
  () => api.GET('/api/plans/{id}/takings', { params: { path: { id: site.planId }, query: { site: props.from } } }),
  { keep: true },
)
const list = computed(() => data.value?.takings ?? [])
const picked = ref<string[]>([])
const there = computed(() => picked.value.filter((id) => list.value.some((t) => t.id === id)))
const all = computed(() => list.value.length > 0 && there.value.length === list.value.length)
const toggle = () => (picked.value = all.value ? [] : list.value.map((t) => t.id))
const problem = ref('')
const busy = ref(false)

async function take() {
  busy.value = true
  const told = await ask(
    api.POST('/api/plans/{id}/takings', {
      params: { path: { id: site.planId } },
      body: { site: props.from, take: there.value },
    }),
  )
  busy.value = false
  problem.value = told.problem && `${told.problem} Nothing was taken.`
  if (!told.data) return
  site.change(told.data.edits)
  emit('taken')
}
</script>

<template>
  <section aria-labelledby="takings">
    <h2 id="takings">How it is planned</h2>
    <p v-if="failure || problem" class="short" role="alert">{{ failure || problem }}</p>
    <p v-if="data && !list.length" class="soft" data-test="takes-nothing">
      What {{ data.name }} has of duties, weeks, activities, camera kinds and special days is here, as it is there.
    </p>
    <template v-if="list.length">
      <table data-test="takings">
        <thead>
          <tr>
            <th>
              <input type="checkbox" :checked="all" aria-label="Choose all" data-test="take-all" @change="toggle" />
            </th>
            <th>What</th>
            <th>There, and here</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="t in list" :key="t.id">
            <td><input :id="`take-${t.id}`" v-model="picked" type="checkbox" :value="t.id" /></td>
            <td>
              <label :for="`take-${t.id}`">{{ t.who }}</label>
            </td>
            <td :class="{ soft: t.new }">
              {{ t.new ? `not here${t.kind === 'special day' ? `: ${t.words}` : ''}` : t.words }}
            </td>
          </tr>
        </tbody>
      </table>
      <button type="button" class="act" :disabled="!there.length || busy" data-test="take" @click="take">
        Take {{ there.length ? count(there.length, 'thing') : 'them' }}
      </button>
    </template>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 8px;
}

table {
  border-collapse: collapse;
  width: 100%;
  margin-bottom: 8px;
}

th {
  text-align: left;
  font-weight: 400;
  font-size: var(--second);
  color: var(--soft);
}

th,
td {
  padding: 2px 8px 2px 0;
  vertical-align: top;
}
</style>
