<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { useRouter } from 'vue-router'

import { me } from '../api/session'
import { useSite } from '../site/useSite'
import { useTheme } from '../theme/useTheme'

/** The plan as a file, with or without its pictures; where the bar is short, all else too. */
const emit = defineEmits<{ name: [] }>()
const site = useSite()
const router = useRouter()
const { dark, toggle } = useTheme()
const isShort = useMediaQuery('(max-width: 500px), (max-width: 1000px) and (max-height: 520px)')
const press = (key: string, more: object = {}) =>
  document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }))
const acts = {
  find: () => press('k', { ctrlKey: true }),
  link: () => press('L', { altKey: true, shiftKey: true, code: 'KeyL' }),
  theme: toggle,
  name: () => emit('name'),
  keys: () => press('?'),
  history: () => router.push({ name: 'history' }),
  file: () => location.assign(`/api/plans/${site.planId}/file`),
  zip: () => location.assign(`/api/plans/${site.planId}/zip`),
}
</script>

<template>
  <ElDropdown
    trigger="click"
    placement="bottom-end"
    :persistent="false"
    @command="(what: keyof typeof acts) => acts[what]()"
  >
    <button type="button" class="plain-button" data-test="export">{{ isShort ? 'Menu' : 'Export plan' }}</button>
    <template #dropdown>
      <ElDropdownMenu>
        <template v-if="isShort">
          <ElDropdownItem disabled>{{
            site.state === 'saving' ? 'saving…' : `revision ${site.version}`
          }}</ElDropdownItem>
          <ElDropdownItem command="find">Find or do…</ElDropdownItem>
          <ElDropdownItem command="link">Copy a link to this</ElDropdownItem>
          <ElDropdownItem command="theme">{{ dark ? 'Light' : 'Dark' }}</ElDropdownItem>
          <ElDropdownItem v-if="!me?.accounts" command="name">Your name…</ElDropdownItem>
          <ElDropdownItem command="keys">Words and keys</ElDropdownItem>
          <ElDropdownItem command="history">History</ElDropdownItem>
        </template>
        <ElDropdownItem command="file" :divided="isShort">The plan file</ElDropdownItem>
        <ElDropdownItem command="zip">With its pictures</ElDropdownItem>
      </ElDropdownMenu>
    </template>
  </ElDropdown>
</template>
