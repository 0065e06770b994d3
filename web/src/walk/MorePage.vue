<script setup lang="ts">
import { computed, ref } from 'vue'

import { api } from '../api/client'
import { ask } from '../api/ask'
import { author } from '../api/author'
import { me, signedOut } from '../api/session'
import { emptyHere, type Waiting } from '../along/store'
import { useTheme } from '../theme/useTheme'
import { seconds } from './moment'
import { beeps, speaks } from './signals'
import { useNewer } from './useNewer'
import { stopTaking, useTaken } from './useTaken'
import { useWaiting } from './useWaiting'
import { addressOf } from './view'
import { moment } from '../time/dates'

/** What is on the phone, what waits, and how it behaves. */
const { taken, take, megabytes, clocks } = useTaken()
const { due, refused, connected, sendNow, retry, drop, look } = useWaiting()
const { newer, takeOver } = useNewer()
const { dark, toggle } = useTheme()
const asked = ref(false)
const signsIn = computed(() => me.value?.accounts)
const off = computed(() => taken.value!.behind)
const words = (w: Waiting) => {
  if ('tick' in w.what) return `Step ${w.what.tick.words}`
  const r = w.what.record
  return (
    r.walk?.name ??
    r.trial?.name ??
    (r.photo ? 'A photo' : r.signature ? 'A signature' : r.decision ? 'A decision' : 'A note')
  )
}
/** Signing out takes all away; where something waits, it is asked first. */
async function leave() {
  if (due.value.length + refused.value.length && !asked.value) {
    asked.value = true
    return
  }
  if (signsIn.value) {
    const told = await ask(api.POST('/api/sign-out', {}))
    if (told.problem && told.status !== 401) return
  }
  await stopTaking()
  await emptyHere()
  await look()
  if (signsIn.value) signedOut.value = true
  location.href = '/walk/'
}
</script>

<template>
  <main>
    <template v-if="newer">
      <h2>A newer page</h2>
      <p>The server has a newer page for phones. What waits is sent first.</p>
      <button type="button" class="act filled" data-test="take-over" @click="takeOver()">Send, and use it</button>
    </template>
    <h2>On this phone</h2>
    <p>
      Revision {{ taken!.test.version }}, {{ megabytes(taken!.bytes) }}, taken along {{ moment(taken!.at) }}.
      <template v-if="Math.abs(off) > 5000"
        >The phone’s clock is {{ seconds(Math.abs(off) / 1000) }} {{ off > 0 ? 'behind' : 'ahead of' }} the server’s;
        times are corrected.</template
      >
      Walks are timed by a clock that nobody sets.
    </p>
    <div class="acts">
      <button type="button" class="act" @click="take(taken!.plan)">Take along anew</button>
    </div>
    <h2>Waits to be sent</h2>
    <p v-if="!due.length && !refused.length">Nothing.</p>
    <ul class="rows">
      <li v-for="w in due" :key="w.seq">
        <p>{{ words(w) }}</p>
      </li>
      <li v-for="w in refused" :key="w.seq">
        <p>
          <b>{{ words(w) }}</b> <span class="short">{{ w.refused }}</span>
        </p>
        <button type="button" class="act short" @click="drop(w)">Remove it from the phone</button>
      </li>
    </ul>
    <div v-if="refused.length" class="acts">
      <button type="button" class="act" data-test="retry" @click="retry">Try again what was not taken</button>
    </div>
    <div v-if="due.length" class="acts">
      <button type="button" class="act" @click="sendNow">{{ connected ? 'Send now' : 'Try to send' }}</button>
    </div>
    <h2>Clocks</h2>
    <ul class="rows">
      <li v-for="r in taken!.test.recorders" :key="r.id">
        <a :href="addressOf('clock', r.id)"
          ><span aria-hidden="true">◷</span><span class="name">{{ r.name }}</span
          ><span class="soft">{{ clocks.has(r.id) ? seconds(clocks.get(r.id)!) : 'not looked at' }}</span></a
        >
      </li>
    </ul>
    <h2>This phone</h2>
    <label v-if="!signsIn" class="field"
      >Your name<input v-model="author" type="text" maxlength="60" data-test="name"
    /></label>
    <div class="acts two">
      <button type="button" class="act" :aria-pressed="beeps" @click="beeps = !beeps">
        Beep and buzz: {{ beeps ? 'on' : 'off' }}
      </button>
      <button type="button" class="act" :aria-pressed="speaks" @click="speaks = !speaks">
        Speak: {{ speaks ? 'on' : 'off' }}
      </button>
      <button type="button" class="act" :aria-pressed="dark" @click="toggle">Dark: {{ dark ? 'on' : 'off' }}</button>
      <a class="act" href="/walk/">All sites</a>
    </div>
    <p v-if="asked" class="short" role="alert" data-test="asked">
      {{ due.length + refused.length }} not sent yet would be lost. Send first, or tap again to lose it.
    </p>
    <button type="button" class="act short" data-test="leave-phone" @click="leave">
      {{ signsIn ? 'Sign out, and empty this phone' : 'Empty this phone' }}
    </button>
  </main>
</template>
