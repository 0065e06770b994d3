<script setup lang="ts">
import { computed, ref } from 'vue'

import PlanGlance from '../glance/PlanGlance.vue'
import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import { isPlanner } from '../api/session'
import { useSite } from '../site/useSite'
import { count, three } from '../ui/figures'
import { notice } from '../ui/notice'
import SwitchField from '../ui/SwitchField.vue'

/** How often the truth lay in the range, over all sites, and kinds of scene whose first guesses were off. */
const site = useSite()
const turned = ref(0)
const { data: right, failure } = useAnswer(
  () => [site.handed, turned.value],
  () => api.GET('/api/measured', {}),
  { keep: true },
)
const names: Record<string, string> = {
  days: 'days kept',
  rate: 'events a day',
  group: 'events at a time',
  length: 'length of an event',
  still: 'kbit/s while nothing moves',
  moving: 'kbit/s while something moves',
}
const share = (n: { in: number; figures: number }) => `${Math.round((100 * n.in) / n.figures)} %`
const off = (by: number) =>
  Math.abs(Math.log(by)) < 0.02
    ? 'right in the middle'
    : `${three(100 * Math.abs(by - 1))} % ${by > 1 ? 'more' : 'less'} than planned`
const enough = computed(() => (right.value?.templates ?? []).filter((t) => t.enough))

async function learn(learns: boolean) {
  const told = await ask(api.PUT('/api/measured/learns', { params: { header: {} }, body: { learns } }))
  if (told.problem) notice(`Not saved. ${told.problem}`, { error: true, seconds: 8 })
  turned.value++
}
</script>

<template>
  <div class="right">
    <h1 class="title">How right were we</h1>
    <p v-if="failure" class="short" role="alert">{{ failure }}</p>
    <p v-else-if="!right" class="soft" role="status">Adding up…</p>
    <template v-else>
      <p v-if="!right.figures" class="soft">
        Nothing was compared yet: bring in what was found at a site, under Against the plan.
      </p>
      <template v-else>
        <p data-test="how-right">
          Over {{ count(right.sites, 'site') }} the truth lay in the range in <b>{{ share(right) }}</b> of
          {{ count(right.figures, 'figure') }}. Ranges are to hold four times out of five.
        </p>
        <table>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col" class="figure">Figures</th>
              <th scope="col" class="figure">In the range</th>
              <th scope="col">In the middle</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="k in right.kinds" :key="k.kind">
              <th scope="row">{{ names[k.kind] }}</th>
              <td class="figure">{{ k.figures }}</td>
              <td class="figure">{{ share(k) }}</td>
              <td>{{ off(k.off) }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <h2>First guesses of new sites</h2>
      <p class="soft">
        A kind of scene that was found at five sites or more can become a better first guess: of your own company’s
        sites alone, and only where this is on.
      </p>
      <SwitchField
        v-if="isPlanner"
        class="switch"
        label="New sites begin with what was found"
        :value="right.learns"
        @change="learn"
      />
      <p v-else>{{ right.learns ? 'This is on.' : 'This is off.' }} A planner of the company decides.</p>
      <ul v-if="right.templates.length" data-test="templates">
        <li v-for="t in right.templates" :key="t.id">
          {{ t.name }}: {{ off(t.off) }}, at {{ count(t.sites, 'site')
          }}<template v-if="t.enough">, four of five within ×/÷ {{ three(t.spread) }}</template
          ><span v-else class="soft">: five are needed</span>
        </li>
      </ul>
      <p v-else class="soft">No kind of scene that was begun from a template was found yet.</p>
      <p v-if="right.learns && enough.length">New sites begin with {{ count(enough.length, 'kind') }} of these.</p>
    </template>
    <PlanGlance v-if="right" class="plan" />
  </div>
</template>

<style scoped>
.right {
  display: flex;
  flex-direction: column;
  overflow: auto;
  padding: 12px 18px 30px;
}

/* What stands in the page stands as it is; the plan has the rest. */
.right > :not(.plan) {
  flex: none;
}

.right > table {
  align-self: start;
}

.plan {
  padding: 16px 0 0;
}

table {
  border-collapse: collapse;
  margin: 8px 0;
}

th,
td {
  text-align: left;
  font-weight: 400;
  padding: 4px 18px 4px 0;
  border-bottom: 1px solid var(--rule);
}

thead th {
  color: var(--soft);
}

.figure {
  text-align: right;
}

.switch {
  max-width: 420px;
}

h2 {
  margin: 20px 0 4px;
}

p {
  margin: 3px 0 8px;
  max-width: 720px;
}
</style>
