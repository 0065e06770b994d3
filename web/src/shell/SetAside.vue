<script setup lang="ts">
import { ElButton } from 'element-plus'

import { useSite } from '../site/useSite'
import type { Aside } from '../site/useQueue'
import { count } from '../ui/figures'

/**
 * Changes that the server failed on, or that were made on a plan that is gone. Nothing of them is lost until they are
 * dropped.
 */
const site = useSite()

/** Says in few words what a change was about. */
function about(one: Aside): string {
  const edit = one.pending.edits[0] ?? {}
  const [kind = 'change', what] = Object.entries(edit)[0] ?? []
  const channels = (what as { channels?: string[] } | undefined)?.channels
  const words = kind.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
  if (!channels) return words
  const [only, more] = channels
  const name = more ? '' : site.channels.get(only!)?.name
  return `${words}, ${name || count(channels.length, 'channel')}`
}

/** Gives a change to the browser as a file. */
function exportOne(one: Aside) {
  const url = URL.createObjectURL(
    new Blob([JSON.stringify({ version: site.version, edits: one.pending.edits }, undefined, 2)], {
      type: 'application/json',
    }),
  )
  const link = document.createElement('a')
  link.href = url
  link.download = `${site.id}-change.json`
  link.click()
  URL.revokeObjectURL(url)
}
</script>

<template>
  <section class="aside" aria-label="Changes not saved" role="alert">
    <p v-for="one in site.aside" :key="one.pending.key" data-test="aside">
      <span class="what"><b>One change is not saved</b> ({{ about(one) }}). {{ one.why }}</span>
      <ElButton size="small" type="primary" data-test="aside-again" @click="site.settle(one, true)">{{
        one.anew ? 'Make it on this plan' : 'Try again'
      }}</ElButton>
      <ElButton size="small" data-test="aside-export" @click="exportOne(one)">Export it</ElButton>
      <ElButton size="small" data-test="aside-drop" @click="site.settle(one, false)">Remove it</ElButton>
    </p>
  </section>
</template>

<style scoped>
.aside {
  padding: 6px 16px;
  background: var(--sheet);
  border-bottom: 2px solid var(--short);
  max-height: 30vh;
  overflow: auto;
}

p {
  margin: 2px 0;
}

.what {
  margin-right: 12px;
}
</style>
