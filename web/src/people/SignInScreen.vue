<script setup lang="ts">
import { computed, onMounted, onUnmounted, useTemplateRef } from 'vue'

import { came, me } from '../api/session'
import { useSite } from '../site/useSite'
import { count } from '../ui/figures'
import { notice } from '../ui/notice'
import SignInForm from '../forms/SignInForm.vue'

/** Covers the page until somebody signs in. What is in hand stays beneath it, and goes on. */
const site = useSite()
const box = useTemplateRef('box')
const before = me.value?.id
const holds = computed(() => site.waiting.length)
onMounted(() => box.value?.showModal())
onUnmounted(() => box.value?.close())

/** What was shown may be another's to see: all of it is asked for anew, but for what waits of the same person. */
function done() {
  if (!holds.value) {
    site.close()
    came.value++
  } else if (before && me.value?.id !== before)
    notice(`What was not saved is sent under the name of ${me.value?.name} now.`, { seconds: 10 })
}
</script>

<template>
  <dialog
    ref="box"
    class="screen"
    :class="{ over: site.plan }"
    aria-labelledby="sign-in-title"
    @cancel.prevent
    @keydown.esc.prevent.stop
    @keydown.stop
  >
    <div class="sheet card">
      <h1 id="sign-in-title">Wakefield</h1>
      <p v-if="holds" class="short">
        You were signed out. {{ count(holds, 'change') }} not saved: sign in, and it goes on.
      </p>
      <p v-else class="soft">Sign in with the name that your company's planner knows you by.</p>
      <SignInForm @done="done" />
    </div>
  </dialog>
</template>

<style scoped>
.screen {
  width: 100%;
  height: 100%;
  max-width: none;
  max-height: none;
  border: 0;
  padding: 0;
  background: var(--paper);
  color: var(--ink);
}

.screen[open] {
  display: grid;
  place-items: center;
}

.screen.over {
  background: color-mix(in srgb, var(--paper) 82%, transparent);
}

.screen::backdrop {
  background: none;
}

.card {
  width: min(400px, 94vw);
  padding: 24px;
}

h1 {
  font-size: var(--figure);
  color: var(--base);
}

p {
  margin: 4px 0 16px;
}
</style>
