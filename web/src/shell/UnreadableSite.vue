<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { again, newKey } from '../api/again'
import { api, inWords } from '../api/client'
import type { Problem, Revision } from '../api/types'
import { useSite } from '../site/useSite'

/** What can be done with a site whose plan this program cannot show: look at its history, take it out, go back. */
const site = useSite()
const revisions = ref<Revision[]>([])
const problem = ref('')
const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

onMounted(async () => {
  try {
    const { data, error } = await api.GET('/api/plans/{id}/revisions', { params: { ...site.here, query: { limit: 100 } } })
    if (data) revisions.value = data
    else problem.value = inWords(error as Problem)
  } catch {
    problem.value = 'The server does not answer.'
  }
})

async function returnTo(revision: number) {
  problem.value = ''
  const header = { 'Idempotency-Key': newKey() }
  try {
    const { data, error } = await again(() =>
      api.POST('/api/plans/{id}/return', { params: { ...site.here, header }, body: { version: revisions.value[0]!.number, revision } }))
    if (data) await site.reload()
    else problem.value = inWords(error as Problem)
  } catch {
    problem.value = 'The server does not answer. Whether that was done shows when it is back.'
  }
}
</script>

<template>
  <p>Nothing is lost: <a :href="`/api/plans/${site.planId}/file`" download>export the plan as it is stored</a>, or return to a revision that can be shown.</p>
  <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  <table>
    <tbody>
      <tr v-for="(r, i) in revisions" :key="r.number">
        <td class="number soft">{{ r.number }}</td>
        <td>{{ r.sentence }}</td>
        <td class="soft">{{ r.author }}</td>
        <td class="soft">{{ when.format(new Date(r.at)) }}</td>
        <td>
          <button v-if="i > 0" type="button" class="plain-button link" :data-return="r.number" @click="returnTo(r.number)">Return to it</button>
          <span v-else class="soft">as it stands</span>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td {
  padding: 2px 14px 2px 0;
}
</style>
