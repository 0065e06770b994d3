<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue'

import { mono } from '../along/send'
import { along, type Draft } from '../along/store'
import { expectationOf } from './expect'
import { minuteOf } from './moment'
import { beeps, say, signal, speaks, stayAwake } from './signals'
import { useTaken } from './useTaken'
import { note, useWaiting } from './useWaiting'
import { show, useView } from './view'

/** While somebody walks: the whole screen answers, in the dark. Times are by a clock that nobody sets. */
const view = useView()
const { taken, camera, now } = useTaken()
const { due } = useWaiting()
const cam = camera(view.about.value[0]!)!
const walk = cam.walks.find((w) => w.id === view.about.value[1])!
const minute = minuteOf(taken.value!.test.timeZone, now())
const expects = expectationOf(cam, walk, minute)
const planned = expects.shown

/** A tap this soon after another is the same finger. */
const twice = 300
const started = ref(mono())
const startedAt = ref(now())
const passed = ref(0)
const sign = ref<number>()
let signaled = false
let frame = 0
let letSleep: (() => void) | undefined

const since = () => (mono() - started.value) / 1000
const late = computed(() => sign.value == null && planned[0] != null && passed.value > planned[0] + 2)

function tickOn() {
  passed.value = since()
  if (!signaled && planned[0] != null && passed.value >= planned[0]) {
    signaled = true
    signal()
    if (speaks.value) say('Now.')
  }
  frame = requestAnimationFrame(tickOn)
}
onMounted(() => {
  void keep()
  letSleep = stayAwake()
  frame = requestAnimationFrame(tickOn)
  if (speaks.value) say('Walk.')
})
onUnmounted(() => {
  cancelAnimationFrame(frame)
  letSleep?.()
})

const draft = (): Draft => ({
  plan: taken.value!.plan,
  channel: cam.channel,
  walk: walk.id,
  started: startedAt.value,
  minute,
  sign: sign.value,
  key: expects.key,
  planned: [...planned],
})

/** The sign is seen: the time counts at once, and is kept before anything else can happen. */
async function seen() {
  if (sign.value != null || since() * 1000 < twice) return
  sign.value = since()
  await keep()
}

const keep = async () => (await along()).put('drafts', draft(), taken.value!.plan).catch(() => undefined)

/** Out of view: the walk is over, with its sign or without. */
async function out() {
  if (since() * 1000 < twice) return
  const gone = since()
  cancelAnimationFrame(frame)
  const id = await note(taken.value!.plan, taken.value!.test.version, cam.channel, {
    walk: {
      walk: walk.id,
      minute,
      ...(sign.value == null ? { noSign: true } : { sign: round(sign.value) }),
      out: round(gone),
      key: expects.key,
      name: walk.name,
      planned: [...planned],
    },
  })
  await (await along()).delete('drafts', taken.value!.plan).catch(() => undefined)
  show(['footage', cam.channel, id], true)
}
const round = (s: number) => Math.round(s * 100) / 100

function again() {
  started.value = mono()
  startedAt.value = now()
  sign.value = undefined
  signaled = false
  void keep()
}
</script>

<template>
  <main class="dark" data-test="running" @click.self="seen">
    <header>
      <h1>{{ cam.number }} {{ cam.name }}</h1>
      <p>
        {{ walk.name }} · running<template v-if="due.length"> · {{ due.length }} kept here</template>
      </p>
    </header>
    <p class="clock" aria-hidden="true" @click="seen">{{ (sign ?? passed).toFixed(1) }} s</p>
    <p class="expected" @click="seen">
      <template v-if="planned[0] == null">no sign is expected</template>
      <template v-else-if="walk.free">expected {{ planned[0].toFixed(1) }} s after you are in view</template>
      <template v-else>expected at {{ planned[0].toFixed(1) }} s</template>
      <b v-if="late"> · should have been seen</b>
    </p>
    <button
      v-if="sign == null"
      type="button"
      class="big sign"
      data-test="sign"
      @pointerdown.prevent="seen"
      @click="seen"
    >
      Sign is seen
    </button>
    <p v-else class="got" role="status">Sign at {{ sign.toFixed(1) }} s. Tap when out of view.</p>
    <button type="button" class="big out" :class="{ main: sign != null }" data-test="out" @click="out">
      {{ sign == null ? 'Out of view, no sign' : 'Out of view' }}
    </button>
    <button type="button" class="act again" data-test="again" @click="again">Again from the start</button>
    <p class="hint">
      <button type="button" class="hush" :aria-pressed="beeps" @click="beeps = !beeps">
        {{ beeps ? 'Beep and buzz: on' : 'Beep and buzz: off' }}
      </button>
    </p>
  </main>
</template>

<style scoped>
.dark {
  position: fixed;
  inset: 0;
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 16px 16px calc(16px + env(safe-area-inset-bottom));
  overflow: auto;
  background: #000;
  color: #fff;
}

header p,
.expected,
.hint {
  margin: 0;
  color: #cfc8d8;
}

.clock {
  font-size: min(96px, 22vw);
  text-align: center;
  margin: 8px 0 0;
}

.expected {
  text-align: center;
  font-size: 18px;
}

.expected b {
  color: #ffb3c6;
}

.big.sign,
.big.main {
  flex: 1 1 40%;
  border: 0;
  background: #4fc3b8;
  color: #000;
  font-size: 28px;
}

.big.out:not(.main) {
  border-color: #ff9db5;
  color: #ffb3c6;
}

.got {
  text-align: center;
  font-size: 20px;
  margin: 0;
}

.again {
  border-color: #8f84a0;
  color: #fff;
}

.hush {
  min-height: 48px;
  min-width: 48px;
  border: 0;
  background: none;
  color: inherit;
  text-decoration: underline;
}
</style>
