<script setup lang="ts">
import { useElementSize, useTitle } from '@vueuse/core'
import { computed, ref, useTemplateRef, watchEffect } from 'vue'
import { useRoute } from 'vue-router'

import { ask, useAnswer } from '../api/ask'
import { api } from '../api/client'
import StillRibbon from '../drawing/StillRibbon.vue'
import { dayNames } from '../time/week'
import { daysInWords, three } from '../ui/figures'
import PdfPages from '../ui/PdfPages.vue'
import PlainField from '../forms/PlainField.vue'
import { useForm } from '../forms/useForm'
import { when } from './when'

/** What a customer sees of a site by a link: what is kept, through the week, and the page that is agreed on. */
const route = useRoute()
const header = computed(() => ({ 'Wakefield-Link': route.hash.slice(1) })) // another may be opened in the same tab
const {
  data: shown,
  failure,
  again,
} = useAnswer(
  () => route.hash,
  () => api.GET('/api/shared', { params: { header: header.value } }).then(noted),
)
const locked = ref(false)
function noted<T extends { error?: unknown; response: Response }>(answer: T): T {
  locked.value = (answer.error as { type?: string } | undefined)?.type === 'wakefield:code'
  return answer
}
const password = ref('')
const { busy, problem, problems, send } = useForm()
async function unlock() {
  const body = { password: password.value }
  if ((await send(() => api.POST('/api/shared/unlock', { params: { header: header.value }, body })))?.status === 204)
    await again()
}

const paper = ref<ArrayBuffer>()
const paperFailure = ref('')
watchEffect(() => {
  if (!shown.value?.papers) return
  void ask(api.GET('/api/shared/paper', { params: { header: header.value }, parseAs: 'arrayBuffer' })).then((told) => {
    paper.value = told.data
    paperFailure.value = told.problem
  })
})
function keep() {
  const url = URL.createObjectURL(new Blob([paper.value!], { type: 'application/pdf' }))
  const link = document.createElement('a')
  link.href = url
  link.download = `${shown.value!.site}.pdf`
  link.click()
  URL.revokeObjectURL(url)
}

const column = useTemplateRef('column')
const { width } = useElementSize(column)
const duties = computed(() => new Map((shown.value?.weeks?.duties ?? []).map((d) => [d.id, d])))
const full = computed(() => Math.max(1, ...(shown.value?.weeks?.channels ?? []).map((c) => c.fullKbps)))
const verdict = computed(() => shown.value?.verdict)
const title = computed(() => (shown.value ? `${shown.value.site}, ${shown.value.variant}` : 'A plan'))
/** What is the same for all of them stands above, once. */
const differs = (days: number | null) =>
  days != null && (!verdict.value || Math.abs(days - (verdict.value.keptDays ?? -1)) > 0.05)
useTitle(computed(() => `${title.value} · Wakefield`))
const money = (amount: number) => new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 }).format(amount)
</script>

<template>
  <main class="shared" data-test="shared">
    <form v-if="locked && !shown" class="sheet lock" data-test="unlock" @submit.prevent="unlock">
      <h1>This link has a password</h1>
      <PlainField
        v-model="password"
        label="Password"
        type="password"
        autocomplete="off"
        :problem="problems.password"
        hint="Who gave you the link knows it."
      />
      <p v-if="problem" class="short" role="alert">{{ problem }}</p>
      <button type="submit" class="act" :disabled="busy">Open</button>
    </form>
    <div v-else-if="failure" class="sheet lock" role="alert" data-test="shared-failure">
      <h1>Nothing is shown here</h1>
      <p>{{ failure }} Ask who gave you the link for another.</p>
    </div>
    <template v-else-if="shown">
      <header>
        <h1>{{ shown.site }}</h1>
        <p class="soft">
          {{ shown.variant }}, revision {{ shown.version }} of {{ when(shown.changed)
          }}<template v-if="shown.by">. {{ shown.by }}</template
          >. For {{ shown.for }}, until {{ when(shown.expires) }}.
        </p>
      </header>
      <section v-if="verdict" aria-label="What is kept" data-test="shared-verdict">
        <h2>What is kept</h2>
        <p class="kept">
          <b :class="{ short: verdict.short }">{{
            verdict.keptDays == null ? 'never overwritten' : daysInWords(verdict.keptDays)
          }}</b><template v-if="verdict.requiredDays != null">
            of {{ verdict.requiredDays }} required, on the camera that is kept shortest</template
          ><template v-if="verdict.likelyDays">
            <span class="soft">
              (likely {{ three(verdict.likelyDays.low) }} to {{ daysInWords(verdict.likelyDays.high) }})</span
            ></template
          >
        </p>
        <p>
          {{ Math.round(verdict.evidence.keptPercent * 10) / 10 }} % of what happens before the cameras is recorded.
        </p>
      </section>
      <p v-if="shown.prices" data-test="shared-prices">
        The drives cost {{ money(shown.prices.total) }} {{ shown.prices.currency
        }}<template v-if="shown.prices.unknown.length">
          without those of {{ shown.prices.unknown.join(', ') }} TB</template
        >.
      </p>
      <section v-if="shown.weeks" aria-label="Through the week" data-test="shared-weeks">
        <h2>Through the week</h2>
        <div class="week">
          <span /><span ref="column" class="days soft"
            ><i v-for="d in dayNames" :key="d">{{ d.slice(0, 3) }}</i></span
          ><span />
          <template v-for="c in shown.weeks.channels" :key="c.id">
            <span class="name" :title="c.name">{{ c.name }}</span>
            <StillRibbon :ribbon="c.ribbon" :duties="duties" :full="full" :width="width" :height="26" />
            <span class="number">{{ differs(c.keptDays) ? daysInWords(c.keptDays!) : '' }}</span>
          </template>
        </div>
        <p class="soft">
          The line below is what is set; the height above it is how much is recorded. Plain: round the clock; upright
          lines: when something moves; slanted lines: on an alarm.
        </p>
      </section>
      <section v-if="shown.papers" aria-label="The page for agreement">
        <h2>The page for agreement</h2>
        <p v-if="paperFailure" class="short" role="alert">{{ paperFailure }}</p>
        <template v-if="paper">
          <button type="button" class="act" data-test="keep-paper" @click="keep">Keep as PDF</button>
          <PdfPages :data="paper" label="The page for agreement" />
        </template>
      </section>
    </template>
  </main>
</template>

<style scoped>
.shared {
  height: 100%;
  overflow: auto;
  padding: 24px max(16px, calc(50% - 420px));
}

.lock {
  display: grid;
  gap: 8px;
  width: min(400px, 94vw);
  margin: 15vh auto 0;
}

.lock .act {
  justify-self: start;
}

h1 {
  font-size: var(--figure);
}

h2 {
  margin: 24px 0 8px;
  font-size: var(--heading);
}

.kept b {
  font-size: var(--figure);
}

.week {
  display: grid;
  grid-template-columns: minmax(90px, 180px) minmax(0, 1fr) 64px;
  gap: 3px 8px;
  align-items: center;
}

.days {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  font-size: var(--axis);
}

.days i {
  font-style: normal;
}

.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.number {
  text-align: right;
}
</style>
