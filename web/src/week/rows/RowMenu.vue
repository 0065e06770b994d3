<script setup lang="ts">
import { onClickOutside } from '@vueuse/core'
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { useRouter } from 'vue-router'

import { useSite } from '../../site/useSite'
import { count } from '../../ui/figures'
import { WEEK, type Span } from '../../time/week'
import { useCopy } from '../copying/useCopy'
import { useHand } from '../../hand/useHand'

/**
 * What can be done with the whole week of a channel, or of those selected with it. Its own menu: Element Plus's hangs
 * on an element and has no field in it, and this one opens where the pointer is.
 */
const place = defineModel<{ channel: string; x: number; y: number } | undefined>({ required: true })
const emit = defineEmits<{ paint: [channels: string[], span: Span] }>()
const site = useSite()
const hand = useHand()
const copy = useCopy()
const router = useRouter()
const menu = useTemplateRef('menu')
const name = ref('')
const naming = ref(false)

const channel = computed(() => site.channels.get(place.value?.channel ?? ''))
const channels = computed(() =>
  hand.selection.includes(channel.value?.id ?? '') ? hand.selection : channel.value ? [channel.value.id] : [],
)
const who = computed(() =>
  channels.value.length > 1 ? count(channels.value.length, 'channel') : (channel.value?.name ?? ''),
)
const follows = computed(() => channels.value.some((id) => typeof site.channels.get(id)?.week === 'string'))
const others = computed(() => hand.selection.filter((id) => id !== channel.value?.id))
const duty = computed(() => site.duties.get(hand.duty)?.name ?? '')

watch(
  place,
  (at) => {
    naming.value = false
    copy.consider(undefined)
    if (at) void nextTick(() => menu.value?.querySelector<HTMLElement>('[role="menuitem"]')?.focus())
  },
  { immediate: true },
)
onClickOutside(menu, close)

function close() {
  place.value = undefined
}

function then(what: () => void) {
  what()
  close()
}

async function keepWeek() {
  const called = name.value.trim()
  const [id] = called ? ((await site.freeIds('week', called)) ?? []) : []
  if (!id) return
  const also = channels.value.filter((c) => c !== channel.value!.id)
  then(() => site.change([{ keepWeek: { from: channel.value!.id, id, name: called, channels: also } }]))
  name.value = ''
}

function key(event: KeyboardEvent) {
  const items = [...menu.value!.querySelectorAll<HTMLElement>('[role="menuitem"]')]
  const at = items.indexOf(document.activeElement as HTMLElement)
  if (event.key === 'Escape') close()
  else if (event.key === 'ArrowDown') items[(at + 1) % items.length]?.focus()
  else if (event.key === 'ArrowUp') items[(at + items.length - 1) % items.length]?.focus()
  else return
  event.preventDefault()
  event.stopPropagation()
}

const style = computed(() => ({
  left: `min(${place.value!.x}px / var(--grow), 100vw / var(--grow) - 300px)`,
  top: `max(8px, min(${place.value!.y}px / var(--grow), 100vh / var(--grow) - 330px))`,
}))
const give = (ids: string[]) => copy.week(channel.value!.id, ids, 'Click to give it.')

function ask() {
  naming.value = true
  void nextTick(() => menu.value?.querySelector('input')?.focus())
}
</script>

<template>
  <div
    v-if="place && channel"
    ref="menu"
    class="menu sheet"
    role="menu"
    :aria-label="`The week of ${who}`"
    :style="style"
    data-test="row-menu"
    @keydown="key"
  >
    <b>{{ who }}</b>
    <button type="button" role="menuitem" @click="then(() => emit('paint', channels, { from: 0, to: WEEK }))">
      Paint the whole week: {{ duty }}
    </button>
    <button type="button" role="menuitem" @click="then(() => copy.copy({ channel: channel!.id }))">
      Copy the week of {{ channel.name }} <kbd>Ctrl+C</kbd>
    </button>
    <button
      v-if="others.length"
      type="button"
      role="menuitem"
      @mouseenter="copy.consider(give(others))"
      @focus="copy.consider(give(others))"
      @click="then(() => copy.doIt(give(others)))"
    >
      Give it to the other {{ count(others.length, 'channel') }} selected
    </button>
    <button
      v-if="follows"
      type="button"
      role="menuitem"
      @click="then(() => site.change([{ departWeek: { channels } }]))"
    >
      Follow no named week
    </button>
    <button
      v-for="w in site.plan?.weeks ?? []"
      :key="w.id"
      type="button"
      role="menuitem"
      @mouseenter="
        copy.consider({
          title: `${who} on the week “${w.name}”`,
          edits: [{ followWeek: { channels, week: w.id } }],
          how: 'Click to follow it.',
        })
      "
      @click="then(() => site.change([{ followWeek: { channels, week: w.id } }]))"
    >
      {{ channel.week === w.id ? '✓ ' : '' }}Follow “{{ w.name }}”
    </button>
    <form v-if="naming" class="naming" @submit.prevent="keepWeek">
      <input
        v-model="name"
        aria-label="Name of the week"
        placeholder="Name of the week"
        maxlength="100"
        data-test="week-name"
        @keydown.stop.esc="naming = false"
        @keydown.stop
      />
      <button type="submit" class="act" :disabled="!name.trim()">Save</button>
    </form>
    <button v-else type="button" role="menuitem" data-test="keep-week" @click="ask">Save as named week…</button>
    <button type="button" role="menuitem" @click="then(() => void router.push({ name: 'kit' }))">
      Its camera, in Kit
    </button>
  </div>
</template>

<style scoped>
.menu {
  position: fixed;
  z-index: 30;
  display: grid;
  min-width: 260px;
  max-height: 330px;
  overflow: auto;
  padding: 8px;
  box-shadow: 0 4px 18px color-mix(in srgb, var(--ink) 25%, transparent);
}

.menu > b {
  padding: 2px 8px 5px;
}

.menu > button {
  text-align: left;
  background: none;
  border: 0;
  border-radius: 4px;
  padding: 3px 8px;
  cursor: pointer;
}

.menu > button:hover,
.menu > button:focus-visible {
  background: var(--selected);
}

kbd {
  float: right;
  font: inherit;
  font-size: var(--axis);
  color: var(--soft);
}

.naming {
  display: flex;
  gap: 6px;
  padding: 3px 8px;
}

.naming input {
  flex: 1;
  min-width: 0;
}
</style>
