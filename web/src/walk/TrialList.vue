<script setup lang="ts">
import { computed } from 'vue'

import type { WalkTrial } from '../api/types'
import { useTaken } from './useTaken'
import { addressOf } from './view'

/** What is tried once beside walks: pictures, contacts, buttons, sounders, messages. */
const { taken, of } = useTaken()
const kinds = [
  ['Contacts and buttons', ['input', 'button']],
  ['Sounders, monitors, presets, messages', ['output', 'monitor', 'preset', 'message']],
  ['Tampering and losses', ['tampered', 'lost', 'uplink']],
  ['Pictures', ['picture']],
] as const
function state(t: WalkTrial): string {
  const last = of(t.id).findLast((r) => r.trial || r.decision)
  if (!last) return ''
  if (last.decision) return last.decision.what === 'leave' ? 'left so' : 'try again'
  if (last.trial!.key !== t.key) return 'try again'
  return last.trial!.lines.every((l) => l.right) ? 'right' : 'differs'
}
const groups = computed(() =>
  kinds
    .map(([title, of]) => ({
      title,
      list: taken.value!.test.trials.filter((t) => (of as readonly string[]).includes(t.kind)),
    }))
    .filter((g) => g.list.length),
)
</script>

<template>
  <main>
    <template v-for="g in groups" :key="g.title">
      <h2>
        {{ g.title }} · {{ g.list.filter((t) => ['right', 'left so'].includes(state(t))).length }} of
        {{ g.list.length }}
      </h2>
      <ul class="rows">
        <li v-for="t in g.list" :key="t.id">
          <a :href="addressOf('trial', t.id)">
            <span aria-hidden="true">{{ state(t) === 'right' ? '✓' : '' }}</span>
            <span class="name">{{ t.name }}</span>
            <span :class="state(t) === 'differs' ? 'short' : 'soft'">{{ state(t) }}</span>
          </a>
        </li>
      </ul>
    </template>
    <p v-if="!groups.length">There is nothing to try beside walks.</p>
  </main>
</template>
