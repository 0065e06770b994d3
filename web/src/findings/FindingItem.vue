<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import { useRouter } from 'vue-router'

import type { Finding, FixEffect } from '../api/types'
import { useSite } from '../site/useSite'
import { useHand } from '../hand/useHand'
import { change, count, three } from '../ui/figures'
import { placeOf } from './placeOf'
import { channelsOf, sentenceOn, useFindings } from './useFindings'

const props = defineProps<{ finding: Finding; linked?: boolean; on?: string; effect?: FixEffect }>()
const { mend, accept, reopen } = useFindings()
const hand = useHand()
const site = useSite()
const router = useRouter()

const names = computed(() =>
  channelsOf(props.finding)
    .map((id) => site.channels.get(id)?.name ?? id)
    .join(', '),
)

/** What the fix does to the days and the evidence. */
const does = computed(() => {
  const e = props.effect
  if (!e) return ''
  const parts = [
    change(e.moreDays) && `${change(e.moreDays)} days${e.keptDays != null ? `, ${three(e.keptDays)} kept` : ''}`,
    change(e.missedPerDay) && `${change(e.missedPerDay)} missed events a day`,
    change(e.gigabytesPerDay) && `${change(e.gigabytesPerDay)} GB a day`,
  ].filter(Boolean)
  return parts.length ? parts.join(' · ') : 'changes neither the days nor the evidence'
})

const asking = ref(false)
const reason = ref('')
const field = useTemplateRef('field')
async function ask() {
  asking.value = true
  await nextTick()
  field.value?.focus()
}
function keep() {
  if (!reason.value.trim()) return
  accept(props.finding, reason.value.trim())
  asking.value = false
}
const most = 24 // places that are listed

/** Goes where the finding is decided. */
const place = computed(() => placeOf(props.finding))
function show() {
  if (channelsOf(props.finding).length) hand.show(channelsOf(props.finding))
  else if (place.value!.name === 'week') hand.panel = 'disk'
  void router.push(place.value!)
}
</script>

<template>
  <li class="finding" :class="finding.severity" :data-rule="finding.rule">
    <b class="severity">{{ finding.severity }}</b>
    <div>
      <p class="sentence">{{ sentenceOn(finding, on) }}</p>
      <p class="soft">{{ finding.reason }}</p>
      <p v-if="finding.decision" class="soft" data-test="decision">{{ finding.decision }}</p>
      <details v-if="finding.places && !on" class="soft">
        <summary>{{ names }}</summary>
        <p v-for="p in finding.places.slice(0, most)" :key="p.channel">{{ p.sentence }}</p>
        <p v-if="finding.places.length > most">and {{ finding.places.length - most }} more</p>
      </details>
      <p v-if="finding.accepted" class="soft" data-test="accepted">
        Accepted{{ finding.accepted.by ? ` by ${finding.accepted.by}` : ''
        }}{{ finding.accepted.on ? ` on ${finding.accepted.on}` : '' }}: {{ finding.accepted.reason }}
      </p>
      <form v-if="asking" class="acts" @submit.prevent="keep">
        <input
          ref="field"
          v-model="reason"
          maxlength="1000"
          aria-label="Why it is accepted"
          placeholder="Why is it accepted?"
          data-test="accept-reason"
          @keydown.esc="asking = false"
        />
        <button type="submit" class="fix" :disabled="!reason.trim()" data-test="accept-finding">Accept</button>
        <button type="button" class="plain-button show" @click="asking = false">Cancel</button>
      </form>
      <p v-else class="acts">
        <span v-if="finding.fix && !finding.accepted && effect?.mends === 'same'" class="soft" data-test="no-mend">
          {{ finding.fix.label }}: tried, and it would not mend this.
        </span>
        <button v-else-if="finding.fix && !finding.accepted" type="button" class="fix" @click="mend(finding)">
          {{ finding.fix.label
          }}{{ finding.places && !finding.pool ? `, ${count(finding.places.length, 'channel')}` : '' }}
        </button>
        <span v-if="finding.fix && !finding.accepted && does" class="soft" data-test="effect">{{ does }}</span>
        <button v-if="linked && place" type="button" class="plain-button show" @click="show">Show where</button>
        <button
          v-if="finding.accepted"
          type="button"
          class="plain-button show"
          data-test="reopen"
          @click="reopen(finding.key)"
        >
          Open it again
        </button>
        <button v-else type="button" class="plain-button show" data-test="accept" @click="ask">Accept…</button>
      </p>
    </div>
  </li>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr);
  gap: 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}

p {
  margin: 0;
}

.severity {
  font-weight: 400;
  color: var(--soft);
}

.error .severity {
  color: var(--short);
  font-weight: 700;
}

.warning .severity {
  color: var(--ink);
  font-weight: 600;
}

.acts {
  display: flex;
  gap: 14px;
  padding-top: 3px;
}

.acts:empty {
  display: none;
}

.acts {
  flex-wrap: wrap;
  align-items: baseline;
}

.acts input {
  width: min(420px, 100%);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 5px;
  padding: 1px 7px;
}

.fix {
  background: none;
  border: 1px solid var(--base);
  border-radius: 5px;
  padding: 1px 9px;
  cursor: pointer;
  color: var(--base);
}

.fix:hover {
  background: var(--selected);
}

.show {
  text-decoration: underline;
}
</style>
