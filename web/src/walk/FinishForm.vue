<script setup lang="ts">
import { computed, ref } from 'vue'

import { nameNow, note } from './useWaiting'
import { useTaken } from './useTaken'
import { counting, progress } from './expect'
import { moment } from '../time/dates'

/** The walk test is finished: a name, and a signature that is drawn. */
const { taken, of, records } = useTaken()
const name = ref(nameNow())
const remark = ref('')
const strokes = ref<[number, number][][]>([])
const saved = ref(false)
const width = 500
const height = 200
const open = computed(
  () =>
    taken
      .value!.test.cameras.filter((c) => !c.none)
      .filter((c) => {
        const { walked, of: needed } = progress(c, of(c.channel))
        return walked < needed && !of(c.channel).some((r) => r.decision?.what === 'leave')
      }).length,
)
const walkedAll = computed(() => taken.value!.test.cameras.reduce((n, c) => n + counting(c, of(c.channel)).length, 0))
const signatures = computed(() => records.value.filter((r) => r.signature))

function at(event: PointerEvent): [number, number] {
  const box = (event.currentTarget as Element).getBoundingClientRect()
  const share = (x: number) => Math.round(1000 * Math.min(1, Math.max(0, x))) / 1000
  return [share((event.clientX - box.left) / box.width), share((event.clientY - box.top) / box.height)]
}
function down(event: PointerEvent) {
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  strokes.value.push([at(event)])
}
function move(event: PointerEvent) {
  const line = strokes.value.at(-1)
  if (event.buttons && line && line.length < 2000) line.push(at(event))
}
const path = (line: [number, number][]) => line.map(([x, y]) => `${x * width},${y * height}`).join(' ')
async function sign() {
  await note(taken.value!.plan, taken.value!.test.version, '', {
    signature: { name: name.value.trim(), strokes: strokes.value, remark: remark.value.trim() },
  })
  saved.value = true
  strokes.value = []
}
</script>

<template>
  <main>
    <h2>Finish</h2>
    <p v-if="open" class="short">
      {{ open === 1 ? '1 camera is' : `${open} cameras are` }} not walked to the end. It can be signed like that; the
      paper says so.
    </p>
    <p>
      {{ walkedAll === 1 ? '1 walk counts' : `${walkedAll} walks count` }}. The paper of the walk test is under
      Handover, Papers.
    </p>
    <label class="field"
      >Name<input v-model="name" type="text" autocomplete="name" maxlength="200" data-test="signer"
    /></label>
    <label class="field">Remark<textarea v-model="remark" rows="2" maxlength="2000"></textarea></label>
    <p id="sign-here">Sign here with a finger:</p>
    <svg
      class="pad"
      :viewBox="`0 0 ${width} ${height}`"
      role="img"
      aria-labelledby="sign-here"
      data-test="pad"
      @pointerdown.prevent="down"
      @pointermove="move"
    >
      <line x1="20" :x2="width - 20" y1="160" y2="160" class="rule" />
      <polyline v-for="(l, i) in strokes" :key="i" :points="path(l)" class="stroke" />
    </svg>
    <div class="acts two">
      <button type="button" class="act" :disabled="!strokes.length" @click="strokes = []">Clear</button>
      <button
        type="button"
        class="act filled"
        :disabled="!strokes.length || !name.trim()"
        data-test="save-signature"
        @click="sign"
      >
        Save the signature
      </button>
    </div>
    <p v-if="saved" role="status">Signed.</p>
    <p v-for="s in signatures" :key="s.id" class="soft">{{ s.signature!.name }}, {{ moment(s.at!) }}</p>
  </main>
</template>

<style scoped>
.pad {
  width: 100%;
  background: var(--sheet);
  border: 1px solid var(--soft);
  border-radius: 8px;
  touch-action: none;
}

.rule {
  stroke: var(--rule);
}

.stroke {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
  stroke-linejoin: round;
  stroke-linecap: round;
}
</style>
