<script setup lang="ts">
import { computed, h, ref } from 'vue'

import { author } from '../api/author'
import { me, signedOut } from '../api/session'
import { useSite } from '../site/useSite'
import { useTheme } from '../theme/useTheme'
import { count } from '../ui/figures'
import { later, nothing } from '../ui/later'
import { useOnce } from '../ui/useOnce'
import VariantMenu from './VariantMenu.vue'

const site = useSite()
const { dark, toggle } = useTheme()

const saved = computed(() => {
  if (signedOut.value && site.waiting.length) return `Signed out: ${count(site.waiting.length, 'change')} not saved`
  if (site.away)
    return site.waiting.length
      ? `No connection: ${count(site.waiting.length, 'change')} not saved`
      : `No connection · revision ${site.version}`
  switch (site.state) {
    case 'saving':
      return 'saving…'
    default:
      return site.aside.length
        ? `${count(site.aside.length, 'change')} not saved · revision ${site.version}`
        : `${site.role === 'planner' ? 'saved' : site.role} · revision ${site.version}`
  }
})

/** Opens the command box, as its key does. */
const find = () => document.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', ctrlKey: true }))

const ExportMenu = later(
  async () => (await import('./reserve')).ExportMenu,
  () => h('button', { type: 'button', class: 'plain-button', disabled: true }, 'Export plan'),
)
const AccountMenu = later(async () => (await import('./reserve')).AccountMenu, nothing)
const OthersHere = later(async () => (await import('./reserve')).OthersHere, nothing)
const GoingOn = later(async () => (await import('./reserve')).GoingOn, nothing)
const YourName = later(async () => (await import('./reserve')).YourName)
const naming = ref(false)
const named = useOnce(() => naming.value)

const undoTitle = computed(() =>
  site.undoes
    ? `Undo${site.undoesBy && site.undoesBy !== author.value ? ` ${site.undoesBy}’s change` : ''}: ${site.undoes} (Ctrl+Z)`
    : 'Nothing to undo',
)
</script>

<template>
  <header class="bar">
    <RouterLink to="/" class="brand">Wakefield</RouterLink>
    <template v-if="site.plan">
      <span class="where"
        ><b>{{ site.plan.site.name }}</b> <VariantMenu
      /></span>
      <OthersHere />
      <GoingOn />
      <span class="state" :class="{ short: site.away || site.aside.length }" role="status" data-test="state">{{
        saved
      }}</span>
      <button
        type="button"
        class="tool"
        :disabled="!site.undoes || site.role !== 'planner'"
        :title="undoTitle"
        data-test="undo"
        @click="site.step('undo')"
      >
        <svg viewBox="0 0 16 16" aria-hidden="true"><path d="M6 3 2.5 6.5 6 10M3 6.5h6a4 4 0 0 1 0 8H7" /></svg
        ><span class="visually-hidden">Undo</span>
      </button>
      <button
        type="button"
        class="tool"
        :disabled="!site.redoes || site.role !== 'planner'"
        :title="site.redoes ? `Redo: ${site.redoes} (Ctrl+Y)` : 'Nothing to redo'"
        data-test="redo"
        @click="site.step('redo')"
      >
        <svg viewBox="0 0 16 16" aria-hidden="true"><path d="M10 3l3.5 3.5L10 10M13 6.5H7a4 4 0 0 0 0 8h2" /></svg
        ><span class="visually-hidden">Redo</span>
      </button>
      <span class="tool text menu"><ExportMenu @name="naming = true" /></span>
    </template>
    <button
      type="button"
      class="tool text"
      title="Find a channel, a page or a command (Ctrl+K)"
      aria-haspopup="dialog"
      data-test="find"
      @click="find"
    >
      Find <kbd>Ctrl+K</kbd>
    </button>
    <button type="button" class="tool text" data-test="theme" @click="toggle">{{ dark ? 'Light' : 'Dark' }}</button>
    <AccountMenu v-if="me?.accounts" class="tool text account" />
    <button
      v-else
      type="button"
      class="tool text"
      title="Your name in the history. Without accounts everybody is a planner"
      aria-haspopup="dialog"
      data-test="author"
      @click="naming = true"
    >
      {{ author }}<span class="soft open"> · no sign-in</span>
    </button>
    <YourName v-if="named" v-model="naming" />
  </header>
</template>

<style scoped src="./top-bar.css"></style>
