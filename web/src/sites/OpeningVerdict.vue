<script setup lang="ts">
import { computed } from 'vue'

import type { OpeningDraft } from '../api/types'
import { count, daysInWords, gigabytes, three } from '../ui/figures'
import NumberField from '../ui/NumberField.vue'
import TermTip from '../ui/TermTip.vue'

/** The first verdict on a site that is not made yet, with what it assumes. */
const props = defineProps<{
  draft?: OpeningDraft
  problem?: string
  marked: boolean
  stale: boolean
  making: boolean
  several: boolean // whether cameras are of several kinds
}>()
const emit = defineEmits<{
  make: []
  rate: [which: 'idleKbps' | 'activeKbps', kbps: number]
  events: [perDay: number]
}>()
const v = computed(() => props.draft?.verdict)
/** What the site would be wrong in from its first day stands with the verdict. */
const errors = computed(() => (props.draft?.findings ?? []).filter((f) => f.severity === 'error'))
const others = computed(() => (props.draft?.findings ?? []).filter((f) => f.severity !== 'error'))
const events = computed(() => Number(three(props.draft?.assumed.eventsPerDay ?? 0).replace(/\s/g, '')))
</script>

<template>
  <section
    class="sheet verdict"
    aria-live="polite"
    aria-label="First verdict"
    :aria-busy="stale"
    data-test="first-verdict"
  >
    <h2>First <TermTip word="verdict" /></h2>
    <template v-if="v">
      <p class="days" :class="{ short: v.short }">
        <b>{{ v.keptDays == null ? 'never overwritten' : daysInWords(v.keptDays) }}</b>
        <template v-if="v.requiredDays != null"> kept of {{ v.requiredDays }} required</template>
      </p>
      <p v-if="v.likelyDays" class="soft">
        Likely range (80 %): {{ three(v.likelyDays.low) }} to {{ daysInWords(v.likelyDays.high) }}; nothing is measured
        yet.
      </p>
      <dl class="figures">
        <dt>written a day</dt>
        <dd>{{ gigabytes(v.gigabytesPerDay) }}</dd>
        <dt>usable</dt>
        <dd>{{ gigabytes(v.usableGB) }}</dd>
        <dt>events at full quality</dt>
        <dd>{{ three(v.evidence.fullPercent) }} %</dd>
        <dt>events missed, a day</dt>
        <dd>{{ three(v.evidence.missedPerDay) }}</dd>
      </dl>
    </template>
    <ul v-if="v && errors.length" class="short" data-test="opening-errors">
      <li v-for="f in errors" :key="f.id">{{ f.sentence }} {{ f.reason }}</li>
    </ul>
    <p v-if="problem" class="short" role="alert">{{ problem }}</p>
    <p v-else-if="!v" class="soft counting">{{ marked ? 'Once what is marked is mended.' : 'Counting…' }}</p>
    <p class="acts">
      <button type="button" class="act" :disabled="making" data-test="make-site" @click="emit('make')">
        Create site
      </button>
      <RouterLink to="/">Cancel</RouterLink>
    </p>
    <template v-if="v && draft">
      <div class="assumed" data-test="assumed">
        <h3>It assumes of each camera{{ several ? ' of the first kind' : '' }}</h3>
        <NumberField
          label="Bitrate, nothing moving"
          unit="kbit/s"
          none="as modelled"
          :value="Math.round(draft.assumed.idleKbps)"
          :max="1000000"
          data-field="idle"
          @change="(k) => emit('rate', 'idleKbps', k)"
        />
        <NumberField
          label="Bitrate, moving"
          unit="kbit/s"
          none="as modelled"
          :value="Math.round(draft.assumed.activeKbps)"
          :max="1000000"
          data-field="active"
          @change="(k) => emit('rate', 'activeKbps', k)"
        />
        <NumberField
          label="Events a day"
          none="as usual there"
          :value="events"
          :max="1000000"
          data-field="events"
          @change="(n) => emit('events', n)"
        />
        <p class="soft">Nothing is known of what it notices: 95 % of what moves, guessed.</p>
        <p class="soft">
          so it is written <b>{{ three(draft.assumed.writtenPercent) }} %</b> of the week
        </p>
      </div>
      <details v-if="others.length" data-test="opening-findings">
        <summary>{{ count(others.length, errors.length ? 'other finding' : 'finding') }}</summary>
        <p v-for="f in others" :key="f.id">
          {{ f.sentence }} <span class="soft">{{ f.reason }}</span>
        </p>
      </details>
      <p v-else-if="!errors.length" class="soft">no findings</p>
    </template>
  </section>
</template>

<style scoped>
/* As high as the figures that come in its place. */
.counting {
  min-height: 134px;
}

.verdict[aria-busy='true'] .days,
.verdict[aria-busy='true'] .figures {
  opacity: 0.55;
}

.days {
  margin: 4px 0;
}

.days b {
  font-size: var(--figure);
}

.assumed h3 {
  margin-top: 6px;
  font-weight: 600;
}

ul {
  margin: 4px 0;
  padding-left: 18px;
}

.acts {
  display: flex;
  gap: 14px;
  align-items: center;
}
</style>
