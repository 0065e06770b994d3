<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, useTemplateRef } from 'vue'

import { useAnswer } from '../api/ask'
import { api } from '../api/client'
import { useSite } from '../site/useSite'
import { change, count, days, gigabytes } from '../ui/figures'
import StillRibbon from '../drawing/StillRibbon.vue'

/** The plan as it stood after a revision: its verdict against today's, and the weeks of its channels. */
const props = defineProps<{ revision: number }>()
const site = useSite()
const box = useTemplateRef('box')
const { width } = useElementSize(box)

const { data: view, failure } = useAnswer(
  () => props.revision,
  () =>
    api.GET('/api/plans/{id}/revisions/{number}', { params: { path: { id: site.planId, number: props.revision } } }),
  { keep: true },
)

const { data: differs } = useAnswer(
  () => [props.revision, site.stamp],
  () =>
    api.GET('/api/plans/{id}/revisions/{number}/differences', {
      params: { path: { id: site.planId, number: props.revision } },
    }),
  { keep: true },
)
const MOST = 30

const duties = computed(() => new Map((view.value?.plan?.duties ?? []).map((d) => [d.id, d])))
const ribbons = computed(() => new Map((view.value?.ribbons ?? []).map((r) => [r.id, r])))
const figures = computed(() => new Map((view.value?.figures ?? []).map((f) => [f.id, f])))
const now = computed(() => site.verdict!)
const then = computed(() => view.value?.verdict)
const minus = (a?: number | null, b?: number | null) => (a != null && b != null ? change(a - b) || 'as now' : '')
/** Channels whose week then was another than it is now. */
const other = (id: string) => JSON.stringify(ribbons.value.get(id)?.rail) !== JSON.stringify(site.ribbons.get(id)?.rail)
const differing = computed(() => (view.value?.plan?.channels ?? []).filter((c) => other(c.id)).length)
</script>

<template>
  <section class="preview sheet" :aria-label="`Revision ${revision}`" data-test="preview">
    <p v-if="failure" class="short">{{ failure }}</p>
    <template v-if="view && then">
      <h2>Revision {{ revision }}</h2>
      <dl class="figures">
        <dt>days kept</dt>
        <dd>
          {{ days(then.keptDays) }} <span class="soft">{{ minus(then.keptDays, now.keptDays) }}</span>
        </dd>
        <dt>written a day</dt>
        <dd>
          {{ gigabytes(then.gigabytesPerDay) }}
          <span class="soft">{{ minus(then.gigabytesPerDay, now.gigabytesPerDay) }}</span>
        </dd>
        <dt>findings</dt>
        <dd>{{ count(view.findings.length, 'finding') }}</dd>
        <dt>weeks other than now</dt>
        <dd>{{ count(differing, 'channel') }}</dd>
      </dl>
      <template v-if="differs">
        <h3>Otherwise now than then</h3>
        <p v-if="!differs.length" class="soft">Nothing.</p>
        <ul class="differs" data-test="since-then">
          <li v-for="(d, i) in differs.slice(0, MOST)" :key="i">
            <b>{{ d.who }}</b>: {{ d.words }}
          </li>
          <li v-if="differs.length > MOST" class="soft">and {{ differs.length - MOST }} more</li>
        </ul>
      </template>
      <div ref="box" class="ribbons">
        <div v-for="c in view.plan?.channels ?? []" :key="c.id" class="row" :class="{ other: other(c.id) }">
          <span class="name">{{ c.name }}</span>
          <StillRibbon
            v-if="ribbons.get(c.id) && !c.noCamera"
            :ribbon="ribbons.get(c.id)!"
            :duties="duties"
            :full="figures.get(c.id)?.fullKbps ?? 1"
            :width="Math.max(50, width - 110)"
            :height="20"
          />
          <span v-else class="soft">no camera</span>
        </div>
      </div>
    </template>
    <p v-else-if="!failure" class="soft">Reading revision {{ revision }}…</p>
  </section>
</template>

<style scoped>
.preview {
  position: sticky;
  top: 0;
  max-height: calc(100vh / var(--grow) - 150px);
  overflow: auto;
}

h3 {
  margin: 10px 0 2px;
  font-size: var(--second);
}

.differs {
  margin: 0;
  padding-left: 18px;
}

.ribbons {
  margin-top: 8px;
}

.row {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  gap: 6px;
  height: 23px;
  color: var(--soft);
  font-size: var(--second);
}

.row.other {
  color: var(--ink);
  font-weight: 600;
  background: var(--selected);
}

.name {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
</style>
