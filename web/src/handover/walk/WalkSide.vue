<script setup lang="ts">
import { computed } from 'vue'

import type { WalkRecord, WalkReport } from '../../api/types'
import { useSite } from '../../site/useSite'
import { notice } from '../../ui/notice'
import { ago } from '../sheets/ago'
import WalkEars from './WalkEars.vue'

/** How a phone comes in, what is known of clocks, who signed, and what the plan does not have any more. */
const props = defineProps<{ report: WalkReport }>()
const site = useSite()
const link = computed(() => location.origin + props.report.address)
const code = computed(() => `/api/plans/${encodeURIComponent(site.planId)}/walk-code`)
const paper = computed(() => `/api/plans/${encodeURIComponent(site.planId)}/papers/walked`)
const copy = () =>
  navigator.clipboard.writeText(link.value).then(
    () => notice('The link was copied.'),
    () => notice('The browser does not let it be copied; mark it and copy it by hand.', { error: true }),
  )
const recorder = (id: string) => site.plan?.recorders.find((r) => r.id === id)?.name ?? id
const off = (s: number) => `${Math.abs(s).toFixed(1)} s ${s < 0 ? 'behind' : 'ahead'}`
const about = (r: WalkRecord) => r.walk?.name ?? r.trial?.name ?? r.decision?.reason ?? 'a photo'
const width = 200
const points = (line: number[][]) => line.map(([x, y]) => `${x! * width},${y! * width * 0.4}`).join(' ')
</script>

<template>
  <aside aria-label="Phone, clocks and signatures">
    <h2>On a phone</h2>
    <img :src="code" alt="A code that opens the walk test on a phone" class="code" />
    <p>
      <a :href="report.address" class="link" data-test="phone-link">{{ link }}</a>
      <button type="button" class="act quiet copy" @click="copy">Copy</button>
    </p>
    <p class="soft">The phone must reach this server once; then it needs no network.</p>
    <WalkEars />
    <template v-if="report.clocks.length">
      <h2>Clocks of recorders</h2>
      <p v-for="c in report.clocks" :key="c.id">
        {{ recorder(c.about) }}: {{ off(c.error!.seconds) }}, {{ ago(c.at!) }}
      </p>
    </template>
    <h2>Signed</h2>
    <p v-if="!report.signatures.length" class="soft">Nobody has signed yet. It is drawn on the phone, under Finish.</p>
    <div v-for="s in report.signatures" :key="s.id">
      <svg
        :viewBox="`0 0 ${width} ${width * 0.4}`"
        class="signature"
        role="img"
        :aria-label="`Signature of ${s.signature!.name}`"
      >
        <polyline v-for="(l, i) in s.signature!.strokes" :key="i" :points="points(l)" />
      </svg>
      <p>
        {{ s.signature!.name }}, {{ ago(s.at!)
        }}<template v-if="s.signature!.remark">: {{ s.signature!.remark }}</template>
      </p>
    </div>
    <p><a :href="paper" target="_blank" class="link" data-test="walked-paper">The walk test as a paper</a></p>
    <template v-if="report.gone.length">
      <h2>Not in the plan any more</h2>
      <p v-for="r in report.gone" :key="r.id" class="soft">
        {{ r.by }}, {{ ago(r.at!) }}: {{ about(r) }} ({{ r.about }})
      </p>
    </template>
  </aside>
</template>

<style scoped>
h2 {
  margin-top: 16px;
}

h2:first-child {
  margin-top: 0;
}

p {
  margin: 4px 0;
  overflow-wrap: anywhere;
}

.code {
  width: 168px;
  height: 168px;
  image-rendering: pixelated;
  background: #fff;
  padding: 8px;
  border-radius: 4px;
}

.copy {
  display: block;
  margin-top: 4px;
}

.signature {
  width: 200px;
  background: var(--sheet);
}

.signature polyline {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
</style>
