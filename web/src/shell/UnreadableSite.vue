<script setup lang="ts">
import { onMounted, ref } from 'vue'

import { again, newKey } from '../api/again'
import { ask } from '../api/ask'
import { api } from '../api/client'
import type { Revision } from '../api/types'
import { useSite } from '../site/useSite'
import { moment } from '../time/dates'

/** What can be done with a site whose plan this program cannot show: look at its history, take it out, go back. */
const site = useSite()
const revisions = ref<Revision[]>([])
const problem = ref('')

onMounted(async () => {
  const params = { ...site.here, query: { limit: 100 } }
  const told = await ask(api.GET('/api/plans/{id}/revisions', { params }))
  problem.value = told.problem
  revisions.value = told.data ?? []
})

async function returnTo(revision: number) {
  const header = { 'Idempotency-Key': newKey() }
  const body = { version: revisions.value[0]!.number, revision }
  const told = await ask(again(() => api.POST('/api/plans/{id}/return', { params: { ...site.here, header }, body })))
  problem.value = told.problem
  if (!told.status) problem.value += ' Whether that was done shows when it is back.'
  if (told.data) await site.reload()
}
</script>

<template>
  <p>
    Nothing is lost: <a :href="`/api/plans/${site.planId}/file`" download>export the plan as it is stored</a>, or return
    to a revision that can be shown.
  </p>
  <p v-if="problem" class="short" role="alert">{{ problem }}</p>
  <table>
    <tbody>
      <tr v-for="(r, i) in revisions" :key="r.number">
        <td class="number soft">{{ r.number }}</td>
        <td>{{ r.sentence }}</td>
        <td class="soft">{{ r.author }}</td>
        <td class="soft">{{ moment(r.at) }}</td>
        <td>
          <button
            v-if="i > 0"
            type="button"
            class="plain-button link"
            :data-return="r.number"
            @click="returnTo(r.number)"
          >
            Return to it
          </button>
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
