<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue'
import type { Finding } from '../api/types'
import { useSite } from '../site/useSite'
import { useHand } from '../hand/useHand'
import MendButton from './MendButton.vue'
import { placeOf } from './placeOf'
import type { Tried } from './useEffects'
import WaysOut from './WaysOut.vue'
import { channelsOf, sentenceOn, useFindings } from './useFindings'

const props = defineProps<{ finding: Finding; linked?: boolean; on?: string; tried?: Tried }>()
const { accept, reopen } = useFindings()
const hand = useHand()
const site = useSite()

const names = computed(() =>
  channelsOf(props.finding)
    .map((id) => site.channels.get(id)?.name ?? id)
    .join(', '),
)

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
const place = computed(() => {
  const to = placeOf(props.finding)
  const channels = channelsOf(props.finding).join()
  return to?.name === 'week' && channels ? { ...to, query: { channels } } : to
})
function show() {
  if (channelsOf(props.finding).length) hand.show(channelsOf(props.finding))
  else if (place.value!.name === 'week') hand.panel = 'disk'
}
</script>

<template>
  <li class="finding" :class="[finding.severity, { wide: linked }]" :data-rule="finding.rule">
    <b v-if="!linked" class="severity">{{ finding.severity }}</b>
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
      <WaysOut v-if="tried && linked" :finding="finding" :tried="tried" />
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
        <template v-if="tried && !linked">
          <MendButton :finding="finding" :tried="tried" />
          <MendButton
            v-for="n in finding.choices?.length ?? 0"
            :key="n"
            :finding="finding"
            :tried="tried"
            :choice="n"
          />
        </template>
        <RouterLink
          v-if="linked && place"
          :to="place"
          class="show"
          :aria-label="`Show where: ${sentenceOn(finding, on)}`"
          @click="show"
          >Show where</RouterLink
        >
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

.small {
  grid-template-columns: minmax(0, 1fr);
  gap: 0;
}

.wide {
  grid-template-columns: minmax(0, 1fr);
  break-inside: avoid;
}

.wide .sentence {
  font-weight: 600;
}

.severity {
  font-weight: 400;
  color: var(--soft);
}

.error .severity {
  color: var(--short);
  font-weight: 600;
}

.warning .severity {
  color: var(--ink);
  font-weight: 600;
}

.acts {
  display: flex;
  gap: 14px;
  flex-wrap: wrap;
  align-items: baseline;
  padding-top: 3px;
}

/* What a mend does is known later than the mend: it moves nothing at the end of its line, or has one of its own in a narrow pane. */
.small .acts > .show {
  margin-left: auto;
}

aside .small .acts > .show {
  margin-left: 0;
}

aside .small .acts > :deep(.mending) {
  flex-basis: 100%;
}

.acts:empty {
  display: none;
}

.acts input {
  width: min(420px, 100%);
}

.fix {
  background: none;
  border: 1px solid var(--base);
  border-radius: 4px;
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

button.show {
  color: var(--base);
  text-decoration: none;
}
</style>
